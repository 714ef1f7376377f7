package rivo.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.DefaultSecurityFilterChain;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfException;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.security.web.util.matcher.OrRequestMatcher;
import org.springframework.security.web.util.matcher.RequestMatcher;
import rivo.server.people.SessionCheck;

/**
 * Who may. Nothing answers without a session but what is named here: the page that shows the sign-in, its assets, the health check,
 * signing in itself, and the device protocol, whose handlers prove by themselves who speaks. A session of the shelf opens the shelf alone;
 * everything else is for administrators. What is not named is denied.
 */
@Configuration
class Security {

    /** Where one signs in. */
    private static final List<String> SIGN_IN = List.of("/api/session", "/api/shelf/session", "/api/shelf/session/link");


    /**
     * What devices and mirrors ask for, many times a second: there is no account, session or page about it, and hence nothing for any filter
     * to do.
     */
    @Bean
    @Order(0)
    SecurityFilterChain deviceProtocol() {
        return new DefaultSecurityFilterChain(new OrRequestMatcher(
                at(HttpMethod.POST, "/device/v2/enrolments"), at(HttpMethod.POST, "/device/v2/reports"), at(HttpMethod.POST, "/device/v2/links"),
                at(HttpMethod.POST, "/device/v2/shelf"), at(HttpMethod.POST, "/device/v2/requests"), at(HttpMethod.GET, "/device/v2/work"),
                at(HttpMethod.GET, "/device/v2/content/*"), at(HttpMethod.GET, "/device/v1/content/*"),
                at(HttpMethod.HEAD, "/device/v2/content/*"), at(HttpMethod.HEAD, "/device/v1/content/*")), List.of());
    }

    private static RequestMatcher at(HttpMethod method, String path) {
        return PathPatternRequestMatcher.withDefaults().matcher(method, path);
    }

    @Bean
    @Order(1)
    SecurityFilterChain notOfTheDeviceProtocol(HttpSecurity http) throws Exception {
        return http.securityMatcher("/device", "/device/**")
                .csrf(AbstractHttpConfigurer::disable)
                .requestCache(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .anonymous(AbstractHttpConfigurer::disable)
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(AbstractHttpConfigurer::disable)
                .authorizeHttpRequests(a -> a
                        // Answered by the gate: version 1 has ended.
                        .requestMatchers("/device/v1/**").permitAll()
                        .anyRequest().denyAll())
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, why) -> nothingThere(response))
                        .accessDeniedHandler((request, response, why) -> nothingThere(response)))
                .build();
    }

    private static void nothingThere(HttpServletResponse response) throws IOException {
        ProblemAnswers.write(response, HttpServletResponse.SC_NOT_FOUND, "unknown-address",
                "The device protocol has nothing at this address; compare it with the documentation.");
    }

    @Bean
    @Order(2)
    SecurityFilterChain people(HttpSecurity http, FrontEnd frontEnd, SecurityContextRepository contexts, SessionTokens tokens,
            SessionCheck sessions) throws Exception {
        return http
                .csrf(csrf -> csrf.csrfTokenRepository(tokens).csrfTokenRequestHandler(new CsrfTokenRequestAttributeHandler())
                        .ignoringRequestMatchers(Security::isSignIn))
                .securityContext(c -> c.securityContextRepository(contexts))
                .requestCache(AbstractHttpConfigurer::disable)
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .headers(AbstractHttpConfigurer::disable)
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.NEVER))
                .addFilterAfter(sessions, SecurityContextHolderFilter.class)
                .authorizeHttpRequests(a -> a
                        .requestMatchers(HttpMethod.GET, "/sign-in", "/shelf", "/assets/**", "/favicon.svg", "/health").permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/session").permitAll()
                        .requestMatchers(HttpMethod.POST, SIGN_IN.toArray(String[]::new)).permitAll()
                        .requestMatchers("/error").permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/icons/*").hasAnyAuthority("administrator", "person")
                        .requestMatchers("/api/shelf", "/api/shelf/**").hasAnyAuthority("administrator", "person")
                        .requestMatchers(HttpMethod.DELETE, "/api/session").hasAnyAuthority("administrator", "person")
                        .anyRequest().hasAuthority("administrator"))
                .exceptionHandling(e -> e
                        .authenticationEntryPoint((request, response, why) -> unknown(frontEnd, request, response))
                        .accessDeniedHandler(Security::denied))
                .build();
    }

    private static boolean isSignIn(HttpServletRequest request) {
        return "POST".equals(request.getMethod()) && SIGN_IN.contains(request.getRequestURI());
    }

    private static void denied(HttpServletRequest request, HttpServletResponse response, AccessDeniedException why) throws IOException {
        if (why instanceof CsrfException) {
            ProblemAnswers.write(response, HttpServletResponse.SC_FORBIDDEN, "forbidden",
                    "The request does not carry this session's token; load the page again.");
        } else if (FrontEnd.asksForPage(request)) {
            response.sendRedirect("/shelf");
        } else {
            ProblemAnswers.write(response, HttpServletResponse.SC_FORBIDDEN, "not-allowed", "This is for administrators. Your own software is at /shelf.");
        }
    }

    /** A browser gets the sign-in in place of the page it asked for; a program gets a problem document. */
    private static void unknown(FrontEnd frontEnd, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        if (FrontEnd.asksForPage(request)) {
            frontEnd.write(response, HttpServletResponse.SC_OK);
        } else {
            ProblemAnswers.write(response, HttpServletResponse.SC_UNAUTHORIZED, "not-signed-in", "Sign in first.");
        }
    }

    /** An address that could mean two things: refused before anybody reads it one way or the other. */
    @Bean
    RequestRejectedHandler rejected() {
        return (request, response, why) -> ProblemAnswers.write(response, HttpServletResponse.SC_BAD_REQUEST, "bad-address",
                "The address is written in a way that could mean two things; write it plainly.");
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    /** There are no accounts of Rivo's own: the directory knows who is who. */
    @Bean
    UserDetailsService noAccounts() {
        return new InMemoryUserDetailsManager();
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
