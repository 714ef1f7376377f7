package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Device;
import rivo.devices.protocol.Work;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import tools.jackson.databind.json.JsonMapper;

/** What devices are told is the JSON of the protocol, however it is put together. */
class WorkJsonTest {

    @TempDir
    private Path data;

    @Test
    void isTheSameToTheByteAsTheMapperWritesIt() {
        try (TestServer server = TestServer.start(data).signIn()) {
            JsonMapper mapper = server.bean(JsonMapper.class);
            WorkJson json = new WorkJson(mapper);
            for (String title : new String[] {"siltscope", "gauge", "mérè-“quoted”"}) {
                TestTitles.add(server, title.equals("siltscope") ? title : "gauge", "Of " + title);
                server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", server.ou("Laboratories"), "required", true));
                if (server.bean(Drafts.class).size("test") > 0) {
                    server.bean(Publishing.class).publish("test", "for the tests", server.bean(Publishing.class).token("test"));
                }
                Snapshot now = server.bean(CurrentSnapshot.class).now();
                int jobs = 0;
                for (Device device : now.estate().devices().all()) {
                    Work work = WorkOfDevice.of(now, device);
                    for (String key : new String[] {null, "a-key"}) {
                        assertThat(new String(json.of(work.withServerKey(key)), StandardCharsets.UTF_8)).as(device.name())
                                .isEqualTo(mapper.writeValueAsString(work.withServerKey(key)));
                    }
                    jobs += work.jobs().size();
                }
                assertThat(jobs).isPositive();
            }
        }
    }
}
