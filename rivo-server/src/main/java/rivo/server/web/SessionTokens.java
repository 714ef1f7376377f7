package rivo.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.security.SecureRandom;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.csrf.DefaultCsrfToken;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;

/**
 * The token that every change has to carry. It belongs to one session and lies in it; a cookie brings it to the front end, but what
 * counts is the session's. Without a session there is none, and none is made.
 */
@Component
class SessionTokens implements CsrfTokenRepository {

    static final String COOKIE = "XSRF-TOKEN";
    private static final String HEADER = "X-XSRF-TOKEN";
    private static final String ATTRIBUTE = "rivo.token";
    private static final int BYTES = 24;

    private final SecureRandom random = new SecureRandom();
    private final boolean secure;

    SessionTokens(ServerSettings settings) {
        this.secure = settings.secure();
    }

    @Override
    public CsrfToken generateToken(HttpServletRequest request) {
        byte[] token = new byte[BYTES];
        random.nextBytes(token);
        return token(Base64.getUrlEncoder().withoutPadding().encodeToString(token));
    }

    private static CsrfToken token(String text) {
        return new DefaultCsrfToken(HEADER, "_token", text);
    }

    @Override
    public void saveToken(@Nullable CsrfToken token, HttpServletRequest request, HttpServletResponse response) {
        HttpSession session = request.getSession(false);
        if (session == null || token == null) {
            return;
        }
        session.setAttribute(ATTRIBUTE, token.getToken());
        response.addHeader(HttpHeaders.SET_COOKIE, ResponseCookie.from(COOKIE, token.getToken()).path("/").secure(secure)
                .sameSite("Strict").build().toString());
    }

    @Override
    public @Nullable CsrfToken loadToken(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session != null && session.getAttribute(ATTRIBUTE) instanceof String text ? token(text) : null;
    }
}
