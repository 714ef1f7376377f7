package rivo.server.people;

import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.time.Clock;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.User;

/** The session of whoever is signed in, and their others. */
@RestController
class SessionApi {

    /** A name and password. */
    record Credentials(String account, String password) {

        @Override
        public String toString() {
            return "credentials";
        }
    }

    /** What a link holds. */
    record LinkToken(String token) {

        @Override
        public String toString() {
            return "token";
        }
    }

    /** Who is signed in. @param administrator whether they may do more than look at their own shelf */
    record Session(String account, String fullName, boolean administrator) {
    }

    private final SignIn signIn;
    private final Sessions sessions;
    private final SecurityContextRepository contexts;
    private final CsrfTokenRepository tokens;
    private final ShelfLinks links;
    private final Clock clock;

    SessionApi(SignIn signIn, ShelfLinks links, Sessions sessions, SecurityContextRepository contexts, CsrfTokenRepository tokens, Clock clock) {
        this.signIn = signIn;
        this.links = links;
        this.sessions = sessions;
        this.contexts = contexts;
        this.tokens = tokens;
        this.clock = clock;
    }

    /** Answers 204 when nobody is signed in. */
    @GetMapping("/api/session")
    @ApiResponse(responseCode = "200", description = "who is signed in")
    ResponseEntity<Session> session() {
        SignedIn who = signedIn();
        return who == null ? ResponseEntity.noContent().build() : ResponseEntity.ok(new Session(who.account(), who.fullName(), who.administrator()));
    }

    private static @Nullable SignedIn signedIn() {
        Authentication held = SecurityContextHolder.getContext().getAuthentication();
        return held != null && held.getPrincipal() instanceof SignedIn who ? who : null;
    }

    /**
     * Signs in. Needs no token, since there is no session yet that it could belong to; that the body has to be JSON keeps other sites'
     * forms away. The session, its id and its token are new, whatever the browser had before.
     */
    @PostMapping(path = "/api/session", consumes = MediaType.APPLICATION_JSON_VALUE)
    Session enter(@RequestBody Credentials credentials, HttpServletRequest request, HttpServletResponse response) {
        return begin(signIn.signIn(credentials.account().strip(), credentials.password(), request.getRemoteAddr()), true, null, request, response);
    }

    /** Signs in to one's own shelf, likewise; nothing else is open to such a session. */
    @PostMapping(path = "/api/shelf/session", consumes = MediaType.APPLICATION_JSON_VALUE)
    Session enterShelf(@RequestBody Credentials credentials, HttpServletRequest request, HttpServletResponse response) {
        return begin(signIn.signInToShelf(credentials.account().strip(), credentials.password(), request.getRemoteAddr()), false, null, request, response);
    }

    /** Signs in to one's own shelf of a computer by a link that this computer has opened. It works once, and for two minutes. */
    @PostMapping(path = "/api/shelf/session/link", consumes = MediaType.APPLICATION_JSON_VALUE)
    Session enterByLink(@RequestBody LinkToken link, HttpServletRequest request, HttpServletResponse response) {
        ShelfLinks.Link used = links.use(link.token());
        return begin(signIn.byLink(used.person()), false, used.device(), request, response);
    }

    private Session begin(User person, boolean administrator, @Nullable String device, HttpServletRequest request, HttpServletResponse response) {
        leave(request);
        SignedIn who = new SignedIn(sessions.newName(), person.id(), person.name(), person.fullName(), clock.instant(), administrator, device);
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(who, null,
                List.of(new SimpleGrantedAuthority(administrator ? "administrator" : "person"))));
        sessions.begun(request.getSession(true), who, request.getRemoteAddr(), request.getHeader("User-Agent"));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        tokens.saveToken(tokens.generateToken(request), request, response);
        return new Session(person.name(), person.fullName(), administrator);
    }

    @DeleteMapping("/api/session")
    ResponseEntity<Void> leave(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        SignedIn who = signedIn();
        if (who != null) {
            sessions.end(who);
        } else if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
        return ResponseEntity.noContent().build();
    }

    /** Where else the same person is signed in. */
    @GetMapping("/api/sessions")
    List<Sessions.SessionView> sessions(Authentication held) {
        return sessions.of((SignedIn) held.getPrincipal());
    }

    /** Ends one of them. */
    @DeleteMapping("/api/sessions/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable String id, Authentication held) {
        sessions.end((SignedIn) held.getPrincipal(), id);
    }
}
