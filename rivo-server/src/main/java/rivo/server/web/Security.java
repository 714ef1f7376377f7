package rivo.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/**
 * Who may. Nothing but the sign-in, its assets, the health check and the device protocol, which has signatures of its
 * own, answers without a session.
 */
@Configuration
class Security {

    private static final String API_POLICY = "default-src 'none'; frame-ancestors 'none'";

    @Bean
    @Order(1)
    SecurityFilterChain devices(HttpSecurity http) throws Exception {
        return http.securityMatcher("/device/**")
                .csrf(csrf -> csrf.disable())
                .requestCache(cache -> cache.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(headers -> headers.cacheControl(cache -> cache.disable()))
                .authorizeHttpRequests(a -> a.anyRequest().permitAll())
                .build();
    }

    @Bean
    @Order(2)
    SecurityFilterChain people(HttpSecurity http, FrontEnd frontEnd, SecurityContextRepository contexts)
            throws Exception {
        return http
                .csrf(csrf -> csrf.spa())
                .securityContext(c -> c.securityContextRepository(contexts))
                .requestCache(cache -> cache.disable())
                .formLogin(form -> form.disable())
                .httpBasic(basic -> basic.disable())
                .logout(logout -> logout.disable())
                .headers(headers -> headers
                        .contentSecurityPolicy(policy -> policy.policyDirectives(API_POLICY))
                        .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN)))
                .authorizeHttpRequests(a -> a
                        .requestMatchers(HttpMethod.GET, "/sign-in", "/assets/**", "/favicon.svg", "/health")
                        .permitAll()
                        .requestMatchers(HttpMethod.POST, "/api/session").permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/session").permitAll()
                        .anyRequest().authenticated())
                .exceptionHandling(e -> e
                        .authenticationEntryPoint((request, response, why) -> unknown(frontEnd, request, response))
                        .accessDeniedHandler((request, response, why) -> problem(response, 403, "forbidden",
                                "The request does not carry this session's token; load the page again.")))
                .build();
    }

    /** A browser gets the sign-in in place of the page it asked for; a program gets a problem document. */
    private static void unknown(FrontEnd frontEnd, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        if (FrontEnd.asksForPage(request)) {
            frontEnd.write(response, HttpServletResponse.SC_UNAUTHORIZED);
        } else {
            problem(response, HttpServletResponse.SC_UNAUTHORIZED, "not-signed-in", "Sign in first.");
        }
    }

    private static void problem(HttpServletResponse response, int status, String code, String sentence)
            throws IOException {
        response.setStatus(status);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        response.getWriter().write("{\"status\":" + status + ",\"code\":\"" + code + "\",\"detail\":\"" + sentence
                + "\"}");
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
