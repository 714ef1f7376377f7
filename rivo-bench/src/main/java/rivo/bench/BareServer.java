package rivo.bench;

import java.util.Map;
import org.springframework.boot.autoconfigure.EnableAutoConfiguration;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.annotation.Import;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The floor: endpoints on the same stack that do nothing. One answers 304, one reads a body as JSON and answers it. */
@EnableAutoConfiguration
@Import(BareServer.Endpoints.class)
public class BareServer {

    /** What is answered. */
    @RestController
    public static class Endpoints {

        @GetMapping("/device/v2/work")
        ResponseEntity<Void> nothingNew() {
            return ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag("\"bare\"").build();
        }

        @PostMapping("/device/v2/reports")
        Map<String, Object> take(@RequestBody Map<String, Object> report) {
            return Map.of("taken", true, "last", report.getOrDefault("number", 0));
        }
    }

    /** @param arguments the port */
    public static void main(String[] arguments) {
        new SpringApplicationBuilder(BareServer.class).properties(Map.of("server.port", arguments[0], "server.address", "127.0.0.1",
                "spring.main.banner-mode", "off", "logging.level.root", "WARN", "spring.jmx.enabled", "false")).run();
    }
}
