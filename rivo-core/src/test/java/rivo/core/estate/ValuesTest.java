package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;

/** The small values of an estate, each on its own. */
class ValuesTest {

    private static final Instant NOW = Estates.AS_OF;

    @Test
    void targetsAreTheSameByKindAndId() {
        assertThat(Target.device("a")).isEqualTo(Target.device(new String("a"))).hasSameHashCodeAs(Target.device("a"))
                .isNotEqualTo(Target.user("a")).isNotEqualTo(Target.device("b")).isNotEqualTo(null).isNotEqualTo("device:a");
        assertThat(Set.of(Target.device("a"), Target.user("a"), Target.group("a"), Target.ou("a"), Target.ALL_DEVICES, Target.ALL_USERS)).hasSize(6);
    }

    @Test
    void targetsAreReadAsTheyAreWritten() {
        for (Target target : List.of(Target.ALL_DEVICES, Target.ALL_USERS, Target.ou("labs"), Target.group("g:1"),
                Target.collection("c"), Target.device("d"), Target.user("u"))) {
            assertThat(Target.parse(target.toString())).isEqualTo(target);
        }
        assertThat(Target.parse("ou:")).isNull();
        assertThat(Target.parse("moon:1")).isNull();
        assertThat(Target.parse("all-devices:1")).isNull();
        assertThatThrownBy(() -> new Target(Target.Kind.OU, "")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Target(Target.Kind.ALL_USERS, "x")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void someTargetsServeOneSideOnly() {
        assertThat(Target.ALL_USERS.kind().serves(Follows.DEVICE)).isFalse();
        assertThat(Target.device("d").kind().serves(Follows.USER)).isFalse();
        assertThat(Target.collection("c").kind().serves(Follows.USER)).isFalse();
        assertThat(Target.group("g").kind().serves(Follows.USER)).isTrue();
    }

    @Test
    void subjectsAreTitlesOrKits() {
        assertThat(Subject.parse("title:siltscope")).isEqualTo(Subject.title("siltscope"));
        assertThat(Subject.parse("kit:k1")).hasToString("kit:k1");
        assertThat(Subject.parse("kit:")).isNull();
        assertThat(Subject.parse("siltscope")).isNull();
    }

    @Test
    void anAssignmentIsLiveFromItsInstantOn() {
        Assignment plain = Assignment.of("a", 1, Subject.title("t"), Intent.REQUIRED, List.of(Target.ALL_DEVICES));
        assertThat(plain.isLive(NOW)).isTrue();
        assertThat(plain.withFrom(NOW).isLive(NOW)).isTrue();
        assertThat(plain.withFrom(NOW.plusMillis(1)).isLive(NOW)).isFalse();
        assertThat(plain.withState(AssignmentState.PAUSED).isLive(NOW)).isFalse();
        assertThat(plain.retired().isLive(NOW)).isFalse();
    }

    @Test
    void onlyLiveAndRetiredOnesRemoveWhatTheyLeave() {
        Assignment leaving = Assignment.of("a", 1, Subject.title("t"), Intent.REQUIRED, List.of(Target.ALL_DEVICES))
                .withLeaving(Leaving.REMOVE);
        assertThat(leaving.removesWhatItLeaves(NOW)).isTrue();
        assertThat(leaving.retired().removesWhatItLeaves(NOW)).isTrue();
        assertThat(leaving.withState(AssignmentState.PAUSED).removesWhatItLeaves(NOW)).isFalse();
        assertThat(leaving.withFrom(NOW.plusSeconds(1)).removesWhatItLeaves(NOW)).isFalse();
        assertThat(leaving.withLeaving(Leaving.KEEP).removesWhatItLeaves(NOW)).isFalse();
    }

    @Test
    void boundsAreHeld() {
        Assignment plain = Assignment.of("a", 1, Subject.title("t"), Intent.REQUIRED, List.of());
        assertThat(plain.withPriority(0).priority()).isZero();
        assertThat(plain.withPriority(1000).priority()).isEqualTo(1000);
        assertThatThrownBy(() -> plain.withPriority(1001)).isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> plain.withPriority(-1)).isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> new Title("t", "t", Scope.DEVICE, -1, List.of(), List.of()))
                .isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> Wave.share(101, true)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Wave(List.of(Target.ALL_DEVICES), BigDecimal.ONE, true))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aNeedIsMetFromItsLowestVersionOn() {
        Need need = new Need("t", Version.of("2.0"));
        assertThat(need.isMetBy(Version.of("2"))).isTrue();
        assertThat(need.isMetBy(Version.of("2.0-rc1"))).isFalse();
        assertThat(need.isMetBy(null)).as("an unknown version satisfies no lowest version").isFalse();
        assertThat(new Need("t", null).isMetBy(null)).isTrue();
    }

    @Test
    void factsAreFoundHoweverTheyAreCapitalised() {
        Facts facts = Facts.of(Map.of("ramGiB", "16", "x.Room", "B12"));
        assertThat(facts.get("ramgib")).isEqualTo("16");
        assertThat(facts.get("x.room")).isEqualTo("B12");
        assertThat(facts.get("arch")).isNull();
        assertThat(facts).isEqualTo(Facts.of(facts.asMap())).hasSameHashCodeAs(Facts.of(facts.asMap()));
        assertThat(facts.asMap()).containsExactly(Map.entry("ramGiB", "16"), Map.entry("x.Room", "B12"));
        assertThat(Facts.NONE.isEmpty()).isTrue();
    }

    @Test
    void theNewestReleaseIsOfferedAndHasAVariant() {
        Release withdrawn = new Release(Version.of("3"), ReleaseState.WITHDRAWN, List.of(), List.of(), List.of());
        Title title = Title.of("t", "t", List.of(Estates.release("1.0"), withdrawn,
                Release.of(Version.of("2.5"), List.of()), Estates.release("2.0-rc1")));
        assertThat(title.newestFirst()).extracting(r -> r.version().toString()).containsExactly("3", "2.5", "2.0-rc1", "1.0");
        assertThat(java.util.Objects.requireNonNull(title.newest()).version()).hasToString("2.0-rc1");
        assertThat(Title.of("t", "t", List.of()).newest()).isNull();
    }

    @Test
    void textsGoByCodePoints() {
        List<String> texts = new java.util.ArrayList<>(List.of("\uD83D\uDE00", "\uFF5E", "a", "", "A", "ab"));
        texts.sort(CodePointOrder.INSTANCE);
        assertThat(texts).containsExactly("", "A", "a", "ab", "\uFF5E", "\uD83D\uDE00");
    }

    @Test
    void cyclesAreFoundOnceEach() {
        Map<String, List<String>> next = Map.of("a", List.of("b"), "b", List.of("c", "a"), "c", List.of(), "d", List.of("d"),
                "e", List.of("f"), "f", List.of("e"));
        assertThat(Cycles.in(new java.util.TreeSet<>(next.keySet()), next::get)).containsExactly(List.of("a", "b"),
                List.of("e", "f"));
    }

    @Test
    void aPresentTitleIsFoundInItsProfile() {
        Device device = Device.of("d", "d", null, List.of("u1", "u2")).withReport(Facts.NONE, List.of(),
                List.of(new Present("brookmap", null, "u1", null), Present.of("siltscope", Version.of("1"))));
        assertThat(device.present("siltscope")).isNotNull();
        assertThat(device.present("brookmap")).isNull();
        assertThat(device.present("brookmap", "u1")).isNotNull();
        assertThat(device.present("brookmap", "u2")).isNull();
    }
}
