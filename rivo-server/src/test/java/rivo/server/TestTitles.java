package rivo.server;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.core.estate.Scope;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;

/** Titles for tests. */
public final class TestTitles {

    public static final byte[] INSTALLER = "a made-up installer".getBytes(StandardCharsets.UTF_8);

    private static final List<ExitCode> CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0),
            new ExitCode(3010, ExitMeaning.RESTART, 0), new ExitCode(1618, ExitMeaning.AGAIN, 5));

    private TestTitles() {
    }

    /** Puts Siltscope Lab 4.1.0 and 4.2.0 into the catalogue. */
    public static void add(TestServer server) {
        add(server, "siltscope", "Siltscope Lab");
    }

    public static void add(TestServer server, String id, String name) {
        add(server, id, name, Scope.DEVICE);
    }

    /** One that is installed for the device or for each person. */
    public static void add(TestServer server, String id, String name, Scope scope) {
        try {
            Contents.Content content = server.bean(Contents.class).keep(new ByteArrayInputStream(INSTALLER),
                    id + "-setup.bin");
            TitleRecord.VariantRecord variant = new TitleRecord.VariantRecord("all", null, false,
                    List.of(content), List.of(Step.run("Run the installer silently", "setup --quiet", CODES)),
                    List.of(Step.run("Take it off", "remove --quiet", CODES)), List.of(), Presence.inventory(name));
            server.bean(Catalogue.class).put("test", TitleRecord.of(id, name, "Fenwick Instruments", List.of(
                    TitleRecord.ReleaseRecord.of("4.1.0", List.of(variant)),
                    TitleRecord.ReleaseRecord.of("4.2.0", List.of(variant)))).installedFor(scope));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
