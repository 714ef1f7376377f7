package rivo.server.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** At each request: whether the session goes on, and whether whoever has it still may. Where not, nobody is signed in. */
@Component
public class SessionCheck extends OncePerRequestFilter {

    private final Sessions sessions;
    private final Administrators administrators;

    SessionCheck(Sessions sessions, Administrators administrators) {
        this.sessions = sessions;
        this.administrators = administrators;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Authentication held = SecurityContextHolder.getContext().getAuthentication();
        if (held != null && held.getPrincipal() instanceof SignedIn who && !mayGoOn(who)) {
            sessions.end(who);
            SecurityContextHolder.clearContext();
        }
        chain.doFilter(request, response);
    }

    private boolean mayGoOn(SignedIn who) {
        return sessions.goesOn(who) && may(who);
    }

    private boolean may(SignedIn who) {
        return who.administrator() ? administrators.hold(who.id()) : administrators.isEnabled(who.id());
    }

    /** Whether whoever once signed in still may, without counting as a request of theirs. */
    public boolean isStill(Authentication held) {
        return held.getPrincipal() instanceof SignedIn who && sessions.isOpen(who) && may(who);
    }

    /** It stands in the chain of Spring Security, and nowhere else. */
    @Configuration
    static class OnlyThere {
        @Bean
        FilterRegistrationBean<SessionCheck> notByItself(SessionCheck check) {
            FilterRegistrationBean<SessionCheck> registration = new FilterRegistrationBean<>(check);
            registration.setEnabled(false);
            return registration;
        }
    }
}
