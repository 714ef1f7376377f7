package rivo.server.web;

import java.time.Duration;
import org.apache.catalina.Container;
import org.apache.catalina.Context;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;

/** What only the container sees: requests that no filter gets, and bodies that nobody has read. */
@Component
class ContainerSetUp implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    private final boolean secure;
    private final Duration patience;

    ContainerSetUp(ServerSettings settings) {
        this.secure = settings.secure();
        this.patience = settings.clientPatience();
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addEngineValves(new EveryAnswer(secure));
        factory.addConnectorCustomizers(connector -> connector.setProperty("connectionTimeout", Long.toString(patience.toMillis())));
        factory.addContextCustomizers(ContainerSetUp::ownErrors);
    }

    private static void ownErrors(Context context) {
        Container host = context.getParent();
        host.getPipeline().addValve(new ContainerErrors());
    }
}
