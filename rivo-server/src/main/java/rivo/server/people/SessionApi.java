package rivo.server.people;

import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The session of whoever is signed in. */
@RestController
class SessionApi {

    /** A name and password. */
    record Credentials(String account, String password) {

        @Override
        public String toString() {
            return account;
        }
    }

    /** Who is signed in. */
    record Session(String account, String fullName) {
    }

    private final SignIn signIn;
    private final SecurityContextRepository contexts;

    SessionApi(SignIn signIn, SecurityContextRepository contexts) {
        this.signIn = signIn;
        this.contexts = contexts;
    }

    /** Answers 204 when nobody is signed in. */
    @GetMapping("/api/session")
    @ApiResponse(responseCode = "200", description = "who is signed in")
    ResponseEntity<Session> session() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null && who.getDetails() instanceof String fullName
                ? ResponseEntity.ok(new Session(who.getName(), fullName)) : ResponseEntity.noContent().build();
    }

    @PostMapping("/api/session")
    Session enter(@RequestBody Credentials credentials, HttpServletRequest request, HttpServletResponse response) {
        SignIn.Person person = signIn.signIn(credentials.account().strip(), credentials.password());
        UsernamePasswordAuthenticationToken who = UsernamePasswordAuthenticationToken
                .authenticated(person.account(), null, List.of());
        who.setDetails(person.fullName());
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(who);
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return new Session(person.account(), person.fullName());
    }

    @DeleteMapping("/api/session")
    ResponseEntity<Void> leave(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
        return ResponseEntity.noContent().build();
    }
}
