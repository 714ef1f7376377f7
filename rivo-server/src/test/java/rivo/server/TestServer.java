package rivo.server;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import rivo.core.estate.Device;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.directory.demo.DemoLdif;
import rivo.directory.demo.DemoOrganisation;
import rivo.directory.demo.EmbeddedDirectory;
import rivo.server.TestClient.Answer;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.storage.Database;

/** A whole server with the small organisation's directory, and somebody who is signed in. */
public final class TestServer implements AutoCloseable {

    public static final String PASSWORD = "heron";

    private final EmbeddedDirectory directory;
    private final ConfigurableApplicationContext context;
    private final URI url;
    private final TestClient client;

    private TestServer(EmbeddedDirectory directory, ConfigurableApplicationContext context) {
        this.directory = directory;
        this.context = context;
        this.url = URI.create("http://127.0.0.1:"
                + ((WebServerApplicationContext) context).getWebServer().getPort());
        this.client = new TestClient(url);
    }

    /** Starts with what the folder holds, and reads the directory. */
    public static TestServer start(Path data, String... more) {
        try {
            Path ldif = data.resolve("directory.ldif");
            if (!Files.exists(ldif)) {
                DemoLdif.write(new DemoOrganisation(true), ldif, PASSWORD, "reads");
            }
            EmbeddedDirectory directory = EmbeddedDirectory.start(ldif, 0);
            TestServer server = new TestServer(directory, boot(data, directory.url(), more));
            server.bean(DirectoryFollower.class).scanNow(false);
            return server;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static ConfigurableApplicationContext boot(Path data, URI directory, String... more) {
        String[] arguments = Arrays.copyOf(more, more.length + 2);
        arguments[more.length] = "--rivo.directory.administrators=" + DemoOrganisation.ADMINISTRATORS_DN;
        arguments[more.length + 1] = "--rivo.local-mirrors=true";
        return new SpringApplicationBuilder(RivoApplication.class).logStartupInfo(false).properties(Map.of(
                "rivo.data", data.toString(), "server.port", 0, "server.address", "127.0.0.1",
                "spring.datasource.url", Database.url(data),
                "rivo.directory.url", directory.toString(), "rivo.directory.base-dn", DemoOrganisation.BASE_DN,
                "rivo.directory.bind-dn", DemoOrganisation.READER_DN, "rivo.directory.password", "reads",
                "rivo.directory.scan-every", "1h", "rivo.directory.patience", "2s")).run(arguments);
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    public URI url() {
        return url;
    }

    public InMemoryDirectoryServer directory() {
        return directory.server();
    }

    /** The id of a device by its name. */
    public String device(String name) {
        return bean(CurrentSnapshot.class).now().estate().devices().all().stream().filter(d -> d.name().equals(name))
                .map(Device::id).findFirst().orElseThrow();
    }

    /** The id of the first OU with this name. */
    public String ou(String name) {
        return bean(CurrentSnapshot.class).now().estate().ous().all().stream().filter(o -> o.name().equals(name)).map(Ou::id)
                .findFirst().orElseThrow();
    }

    /** The id of a group by its name. */
    public String group(String name) {
        return bean(CurrentSnapshot.class).now().estate().groups().values().stream().filter(g -> g.name().equals(name)).map(Group::id)
                .findFirst().orElseThrow();
    }

    /** Publishes the draft. */
    public Answer publish(String reason) {
        String token = ask("GET", "/api/draft", null).body().at("/rehearsal/token").asString("");
        return ask("POST", "/api/draft/publication", Map.of("reason", reason, "token", token));
    }

    public TestServer signIn() {
        client.signIn();
        return this;
    }

    /** Asks as the front end does, with the session's token. */
    public Answer ask(String method, String path, @Nullable Object body) {
        return client.ask(method, path, body);
    }

    /** The session's cookies and token as header lines, for those who write a request by hand. */
    public String cookieHeaders() {
        return client.cookieHeaders();
    }

    /** Somebody else's browser, or another one of the same person. */
    public TestClient anotherBrowser() {
        return new TestClient(url);
    }

    /** Asks with no more than what the request holds. */
    public Answer send(HttpRequest.Builder request, String method, @Nullable Object body) {
        return client.send(request, method, body);
    }

    /** Asks with the cookies that the request has, and no others. */
    public Answer sendWithoutCookies(HttpRequest.Builder request, String method) {
        return anotherBrowser().send(request, method, null);
    }

    /** Asks both while the writer is busy, so that it takes their commands together; the answers in their order. */
    public List<Answer> together(Callable<Answer> one, Callable<Answer> other) throws Exception {
        CountDownLatch busy = new CountDownLatch(1);
        CountDownLatch waiting = new CountDownLatch(1);
        ExecutorService threads = Executors.newFixedThreadPool(3);
        try {
            threads.submit(() -> bean(ChangeWriter.class).take(context -> {
                busy.countDown();
                try {
                    return waiting.await(10, TimeUnit.SECONDS);
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            }));
            busy.await();
            Future<Answer> first = threads.submit(one);
            Future<Answer> second = threads.submit(other);
            // Both have to stand in the writer's queue by then.
            Thread.sleep(400);
            waiting.countDown();
            return List.of(first.get(), second.get());
        } finally {
            threads.shutdownNow();
        }
    }

    @Override
    public void close() {
        context.close();
        directory.close();
    }
}
