package rivo.server;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import rivo.core.estate.ReleaseState;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Contents;
import rivo.server.catalogue.TitleRecord;

/** Titles for tests. */
public final class Titles {

    public static final byte[] INSTALLER = "a made-up installer".getBytes(StandardCharsets.UTF_8);

    private Titles() {
    }

    /** Puts Siltscope Lab 4.1.0 and 4.2.0 into the catalogue. */
    public static void add(TestServer server) {
        add(server, "siltscope", "Siltscope Lab");
    }

    public static void add(TestServer server, String id, String name) {
        try {
            Contents.Content content = server.bean(Contents.class).keep(new ByteArrayInputStream(INSTALLER),
                    id + "-setup.bin");
            TitleRecord.VariantRecord variant = new TitleRecord.VariantRecord("all", content, "setup --quiet",
                    "remove --quiet", 1200);
            server.bean(Catalogue.class).put("test", new TitleRecord(id, name, "Fenwick Instruments", name, List.of(
                    new TitleRecord.ReleaseRecord("4.1.0", ReleaseState.OFFERED, List.of(variant)),
                    new TitleRecord.ReleaseRecord("4.2.0", ReleaseState.OFFERED, List.of(variant)))));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
