package rivo.server.fleet;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import rivo.server.fleet.Caller.CallingMirror;
import rivo.server.fleet.Caller.Enrolling;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.mirror.Mirror;
import rivo.server.mirror.Mirrors;
import rivo.server.web.ApiException;

/**
 * Who speaks, for the handlers of the device protocol that ask for it. Asked by the dispatcher after it has chosen the handler, so
 * there is no second reading of the address that could come to something else.
 */
@Component
class CallerResolver implements HandlerMethodArgumentResolver, WebMvcConfigurer {

    private static final String BEARER = "Bearer ";

    private final ProvenDevices devices;
    private final CurrentSnapshot current;

    CallerResolver(ProvenDevices devices, CurrentSnapshot current) {
        this.devices = devices;
        this.current = current;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(this);
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return Caller.class.isAssignableFrom(parameter.getParameterType());
    }

    @Override
    public Caller resolveArgument(MethodParameter parameter, @Nullable ModelAndViewContainer container, NativeWebRequest request,
            @Nullable WebDataBinderFactory binders) {
        HttpServletRequest http = Objects.requireNonNull(request.getNativeRequest(HttpServletRequest.class));
        Class<?> wanted = parameter.getParameterType();
        if (wanted == Enrolling.class) {
            return new Enrolling(ProvenDevices.signed(http));
        }
        String authorization = http.getHeader("Authorization");
        if (wanted == Caller.class && authorization != null && authorization.startsWith(BEARER)) {
            return mirror(authorization.substring(BEARER.length()).strip());
        }
        return devices.of(http);
    }

    /** Its key is a bearer token (RFC 6750). */
    private CallingMirror mirror(String key) {
        Mirror mirror = Mirrors.withKey(current.now(), key);
        if (mirror == null) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "unknown-mirror",
                    "The key is that of no mirror. Give the mirror its configuration anew.");
        }
        return new CallingMirror(mirror.id());
    }
}
