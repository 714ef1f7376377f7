package rivo.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/**
 * The one page of the front end, at every address that is a place. Each answer carries a nonce of its own, without
 * which no style element is taken (Content Security Policy, level 3).
 */
@Hidden
@Controller
class FrontEnd {

    private static final String NONCE_MARK = "__NONCE__";
    private static final int NONCE_BYTES = 18;

    private final SecureRandom random = new SecureRandom();
    private final String page;

    FrontEnd() throws IOException {
        ClassPathResource index = new ClassPathResource("rivo-web/index.html");
        try (InputStream in = index.getInputStream()) {
            page = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** Whether a browser asks for a place, rather than a program for an answer. */
    static boolean asksForPage(HttpServletRequest request) {
        String accept = request.getHeader("Accept");
        String path = request.getRequestURI();
        return "GET".equals(request.getMethod()) && accept != null && accept.contains(MediaType.TEXT_HTML_VALUE)
                && !path.startsWith("/api/") && !path.startsWith("/device/");
    }

    @GetMapping({"/", "/sign-in", "/catalogue", "/catalogue/**", "/reach", "/reach/**", "/audiences", "/audiences/**", "/people/**", "/fleet", "/fleet/**",
        "/mirrors", "/mirrors/**", "/windows", "/trusted-roots", "/today", "/shelf"})
    void page(HttpServletResponse response) throws IOException {
        write(response, HttpServletResponse.SC_OK);
    }

    /** Writes the page with this status. Without a session it shows the sign-in. */
    void write(HttpServletResponse response, int status) throws IOException {
        byte[] bytes = new byte[NONCE_BYTES];
        random.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        response.setStatus(status);
        response.setHeader("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-"
                + nonce + "'; font-src 'self'; img-src 'self' data:; connect-src 'self'; form-action 'self'; "
                + "base-uri 'none'; frame-ancestors 'none'");
        response.setHeader("Cache-Control", "no-store");
        response.setContentType(MediaType.TEXT_HTML_VALUE);
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response.getWriter().write(page.replace(NONCE_MARK, nonce));
    }
}
