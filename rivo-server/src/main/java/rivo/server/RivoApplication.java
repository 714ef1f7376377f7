package rivo.server;

import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The server. Its settings are those of {@link ServerSettings}. */
@SpringBootApplication
@EnableScheduling
@ConfigurationPropertiesScan
public class RivoApplication {
}
