package rivo.server.notice;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;

class NoticeSentenceTest {

    /** An hour behind. */
    private static final Device DEVICE = new Device("d1", "QB-LAB-001", null, List.of(), Facts.of(Map.of("x.timezone", "-01:00")), List.of(), List.of());

    private static <E extends Enum<E>> @Nullable E of(Class<E> type, @Nullable String word) {
        return word == null ? null : Enum.valueOf(type, word.toUpperCase(Locale.ROOT).replace('-', '_'));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "-", textBlock = """
            coming | held | - | - | - | - | - | To be told once somebody is there and it is not quiet: Maps is to be installed or removed
            start | shown | Tobin Fell | - | - | - | - | Tobin Fell was told: Maps is being installed or removed
            start | shown | - | - | - | - | - | Somebody was told: Maps is being installed or removed
            removed | over | - | - | - | - | - | Not told any more, since it was overtaken: Maps is removed
            failed | done | Tobin Fell | - | - | - | - | Tobin Fell read on the shelf: Maps did not work
            done | done | - | - | - | - | - | Somebody read on the shelf: Maps is installed
            restart | held | - | - | - | - | - | To be asked: the restart, for Maps
            sign-out | shown | Tobin Fell | - | - | - | - | Tobin Fell was asked for the sign-out, for Maps
            close | shown | - | - | - | - | - | Somebody was asked for closing programs, for Maps
            restart | put-off | Tobin Fell | later | 2026-11-30T08:00:00Z | 2 | - | Tobin Fell put the restart off until Mon 30 Nov 07:00; 2 more allowed
            restart | put-off | Tobin Fell | later | 2026-11-30T08:00:00Z | 0 | - | Tobin Fell put the restart off until Mon 30 Nov 07:00; for the last time
            restart | put-off | Tobin Fell | later | - | - | - | Tobin Fell put the restart off until later
            restart | put-off | Tobin Fell | at-sign-out | - | 1 | - | Tobin Fell put the restart off until they sign out; 1 more allowed
            restart | counting-down | Tobin Fell | now | - | - | - | Tobin Fell agreed to the restart
            restart | counting-down | - | - | 2026-11-30T08:00:00Z | - | - | The restart counts down to Mon 30 Nov 07:00
            close | done | - | - | - | - | - | Closing programs was done, for Maps
            sign-out | over | - | - | - | - | - | The sign-out is not asked for any more
            restart | shown | Tobin Fell | later | - | - | withdrawn | Tobin Fell was asked for the restart, for Maps; this did not count (it was not asked any more)
            restart | shown | Tobin Fell | later | - | - | counts-down | Tobin Fell was asked for the restart, for Maps; this did not count (it counted down already)
            restart | shown | Tobin Fell | later | - | - | put-off-too-often | Tobin Fell was asked for the restart, for Maps; this did not count (it had been put off as often as allowed)
            restart | shown | Tobin Fell | later | - | - | put-off-too-long | Tobin Fell was asked for the restart, for Maps; this did not count (longer than allowed)
            restart | shown | Tobin Fell | later | - | - | other | Tobin Fell was asked for the restart, for Maps; this did not count (no answer to this)
            """)
    void itSaysWhatBecameOfANotice(String kind, String state, @Nullable String person, @Nullable String answer, @Nullable Instant until,
            @Nullable Integer left, @Nullable String refused, String sentence) {
        Notices.Line line = new Notices.Line("d1", Instant.EPOCH, of(NoticeKind.class, kind), List.of("maps"), person, of(NoticeState.class, state), until, left,
                of(NoticeAnswer.class, answer), refused);
        assertThat(NoticeSentence.of(line, DEVICE, person, List.of("Maps"))).isEqualTo(sentence);
        assertThat(NoticeSentence.of(line, DEVICE, person, List.of())).isEqualTo(sentence.replace("Maps", "a title that has gone"));
        assertThat(NoticeSentence.of(line, DEVICE, person, List.of("Maps", "Siltscope"))).isEqualTo(sentence.replace("Maps", "Maps, Siltscope"));
    }
}
