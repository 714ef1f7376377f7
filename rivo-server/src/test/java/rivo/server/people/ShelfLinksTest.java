package rivo.server.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rivo.server.web.ApiException;

/** One-time links, by a clock that the test sets. */
class ShelfLinksTest {

    private static final Instant MADE = Instant.parse("2026-11-28T09:00:00Z");
    private final Clock clock = mock(Clock.class);
    private final ShelfLinks links = new ShelfLinks(clock);

    @BeforeEach
    void itIsNine() {
        when(clock.instant()).thenReturn(MADE);
    }

    @Test
    void aLinkWorksForTwoMinutesAndOnce() {
        String token = links.make("u1", "d1");
        when(clock.instant()).thenReturn(MADE.plusMillis(119_999));
        assertThat(links.use(token)).extracting(ShelfLinks.Link::person, ShelfLinks.Link::device).containsExactly("u1", "d1");
        assertThatThrownBy(() -> links.use(token)).isInstanceOf(ApiException.class).hasMessageContaining("has been used");
    }

    @Test
    void aLateLinkIsRefusedAndGone() {
        String token = links.make("u1", "d1");
        when(clock.instant()).thenReturn(MADE.plusSeconds(120));
        assertThatThrownBy(() -> links.use(token)).isInstanceOf(ApiException.class);
        when(clock.instant()).thenReturn(MADE);
        assertThatThrownBy(() -> links.use(token)).as("it was tried").isInstanceOf(ApiException.class);
    }

    @Test
    void eachLinkIsItsOwn() {
        String one = links.make("u1", "d1");
        String other = links.make("u1", "d1");
        assertThat(one).isNotEqualTo(other).hasSize(43);
        assertThat(links.use(other).person()).isEqualTo("u1");
        assertThat(links.use(one).person()).as("the one before goes on working").isEqualTo("u1");
    }
}
