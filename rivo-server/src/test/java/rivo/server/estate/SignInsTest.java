package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.server.estate.SignIns.SignIn;

/** Who signs in on a device. */
class SignInsTest {

    private static final Instant DAY = Instant.parse("2026-11-23T08:00:00Z");
    private static final SignIns NOBODY = new SignIns(List.of());

    private static Instant after(int minutes) {
        return DAY.plusSeconds(60L * minutes);
    }

    @Test
    void whoSignsInAndOutIsRememberedWithSinceWhen() {
        SignIns first = NOBODY.with(List.of("u1"), DAY);
        SignIns second = first.with(List.of("u2"), after(5));
        assertThat(second.find("u1")).isEqualTo(new SignIn("u1", false, DAY, after(5)));
        assertThat(second.find("u2")).isEqualTo(new SignIn("u2", true, after(5), after(5)));
        assertThat(second.with(List.of("u2"), after(9))).as("nothing new").isEqualTo(second);
        assertThat(second.isSignedIn("u1")).isFalse();
        assertThat(second.isSignedIn("u2")).isTrue();
        assertThat(second.isSignedIn("u3")).isFalse();
        assertThat(second.with(List.of("u1", "u2", "u1"), after(9)).find("u1")).isEqualTo(new SignIn("u1", true, DAY, after(9)));
    }

    @Test
    void whoeverTheDirectoryNamesComesFirstAndEachOnce() {
        SignIns told = NOBODY.with(List.of("u2"), DAY).with(List.of("u1", "u3"), after(1));
        assertThat(SignIns.peopleOf(List.of("u3", "u4"), told)).containsExactly("u3", "u4", "u2", "u1");
        assertThat(SignIns.peopleOf(List.of("u3"), null)).containsExactly("u3");
        assertThat(SignIns.peopleOf(List.of("u3"), NOBODY)).containsExactly("u3");
    }

    @Test
    void whoHasBeenAwayForLongIsForgottenButNotWhoIsThere() {
        SignIns told = NOBODY.with(List.of("u1", "u2"), DAY).with(List.of("u2"), after(10));
        assertThat(told.since(after(10)).people()).extracting(SignIn::person).containsExactly("u1", "u2");
        assertThat(told.since(after(11)).people()).extracting(SignIn::person).containsExactly("u2");
        assertThat(told.without(Set.of("u2")).people()).extracting(SignIn::person).containsExactly("u1");
    }

    /** A device that names everybody does not make everybody one of its people. */
    @Test
    void noMoreThanAHundredAreRemembered() {
        SignIns told = NOBODY.with(List.of("here"), DAY);
        for (int i = 0; i < 150; i++) {
            told = told.with(List.of("here", "u" + i), after(i + 1));
        }
        assertThat(told.people()).hasSize(SignIns.MOST);
        assertThat(told.isSignedIn("here")).isTrue();
        assertThat(told.find("u0")).as("away the longest").isNull();
        assertThat(told.find("u149")).isNotNull();
        assertThat(told.hasAllOf(NOBODY.with(List.of("u0"), DAY))).isFalse();
        assertThat(told.hasAllOf(NOBODY.with(List.of("u149"), DAY))).isTrue();
        assertThat(NOBODY.with(IntStream.range(0, 300).mapToObj(i -> "u" + i).toList(), DAY).people()).hasSize(SignIns.MOST);
    }
}
