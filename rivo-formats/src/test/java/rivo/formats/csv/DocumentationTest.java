package rivo.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Title;
import rivo.core.explain.Trail;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateReader;

/** The worked example of the documentation comes out as it is written there. */
class DocumentationTest {

    private static final Path DOCS = Path.of("../docs");

    @Test
    void theWorkedExampleIsTrue() throws IOException {
        Resolver resolver = Resolver.of(EstateReader.read(DOCS.resolve("examples/quillbrook-labs.json")));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        EffectiveCsv.write(resolver.audiences(), resolver.all().values(), out);
        String page = Files.readString(DOCS.resolve("resolution.md"));
        assertThat(page).contains("quillbrook-labs.json\n" + out.toString(StandardCharsets.UTF_8) + "```");
        Title siltscope = java.util.Objects.requireNonNull(resolver.estate().title("siltscope"));
        Trail trail = Trail.of(resolver, siltscope, resolver.estate().devices().position("ctl-001"));
        assertThat(page).contains("--title siltscope\n" + trail.sentence() + "\n");
        trail.rungs().forEach(rung -> assertThat(page).contains("  " + rung.assignment().id() + " "
                + rung.assignment().intent().word() + " " + rung.target() + ": " + trail.sentence(rung)));
    }
}
