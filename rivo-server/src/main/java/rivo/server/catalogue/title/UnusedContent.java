package rivo.server.catalogue.title;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.server.catalogue.content.Contents;

/**
 * Cleans up content that no title names: that of a proposal nobody took, of a title file that was refused, of a variant
 * that got another file. It stays for a week after it was first seen unused, over restarts too, so that whoever is still
 * looking at a proposal can take it.
 */
@Component
class UnusedContent {

    private static final Logger LOG = LoggerFactory.getLogger(UnusedContent.class);
    private static final Duration KEPT = Duration.ofDays(7);

    private final Contents contents;
    private final Catalogue catalogue;
    private final Clock clock;

    UnusedContent(Contents contents, Catalogue catalogue, Clock clock) {
        this.contents = contents;
        this.catalogue = catalogue;
        this.clock = clock;
    }

    @Scheduled(initialDelayString = "PT10M", fixedDelayString = "PT6H")
    void cleanUp() {
        try {
            int deleted = contents.forgetUnused(catalogue.now().contents().keySet(), clock.instant(), KEPT);
            if (deleted > 0) {
                LOG.info("Content that no title has named for a week is deleted: {}", deleted);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
