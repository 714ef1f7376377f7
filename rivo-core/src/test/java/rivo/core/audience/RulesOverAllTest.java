package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.rule.Rule;

/** A rule asked of all devices at once picks those that satisfy it when each is asked by itself. */
class RulesOverAllTest {

    private static final List<String> NAMES = List.of("Siltscope", "siltscope", "Mudview", "Ärmel", "Weir Notes");
    private static final List<String> VERSIONS = List.of("1.0", "1.0.0", "2.0-rc1", "2", "10.1");

    private final Random random = new Random(41);

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private Device device(int i) {
        Map<String, String> facts = new LinkedHashMap<>();
        if (random.nextInt(4) > 0) {
            facts.put("arch", one(List.of("x64", "X64", "arm64")));
        }
        if (random.nextInt(3) > 0) {
            facts.put("ramGiB", one(List.of("4", "8", "16", "16.0")));
        }
        if (random.nextInt(3) > 0) {
            facts.put("lastSeen", one(List.of("2026-11-22T08:00:00Z", "2026-10-01T00:00:00+02:00")));
        }
        if (random.nextInt(3) > 0) {
            facts.put("os.version", one(VERSIONS));
        }
        if (random.nextInt(5) == 0) {
            facts.put("x.Room", one(NAMES));
        }
        List<Installed> software = new ArrayList<>();
        List<Present> present = new ArrayList<>();
        for (int n = random.nextInt(4); n > 0; n--) {
            software.add(new Installed(random.nextInt(9) == 0 ? null : one(NAMES), random.nextBoolean() ? null : "Fenwick",
                    random.nextInt(4) == 0 ? null : one(VERSIONS)));
        }
        if (random.nextBoolean()) {
            present.add(Present.of("siltscope", random.nextBoolean() ? null : Version.of(one(VERSIONS))));
        }
        return new Device("d" + i, "QB-" + i, one(List.of("labs", "bench", "works")),
                random.nextBoolean() ? List.of() : List.of("imara"), Facts.of(facts), software, present);
    }

    private String text(List<String> attributes) {
        return one(attributes) + " " + one(List.of("eq", "ne", "co", "sw", "ew", "gt", "le")) + " \"" + one(NAMES) + "\"";
    }

    private String version(String attribute) {
        return attribute + " " + one(List.of("eq", "ne", "gt", "ge", "lt", "le")) + " \"" + one(VERSIONS) + "\"";
    }

    private String inBrackets(int deep, String plain, String versioned) {
        if (deep == 0) {
            return one(List.of(plain, versioned, versioned.substring(0, versioned.indexOf(' ')) + " pr"));
        }
        return one(List.of("not (" + inBrackets(deep - 1, plain, versioned) + ")",
                "(" + inBrackets(deep - 1, plain, versioned) + " and " + inBrackets(0, versioned, plain) + ")",
                "(" + inBrackets(deep - 1, plain, versioned) + " or " + inBrackets(0, plain, versioned) + ")"));
    }

    private String rule(int deep) {
        if (deep == 0) {
            return one(List.of(text(List.of("arch", "name", "x.Room", "software.name", "software.publisher", "people.name")),
                    version("os.version"), "ramGiB " + one(List.of("eq", "ne", "gt", "le")) + " " + one(List.of("4", "8.0", "16")),
                    "lastSeen " + one(List.of("gt", "lt")) + " \"-P14D\"", one(List.of("arch pr", "software pr", "present pr",
                            "people pr", "x.Room pr")), "ou co \"labs\"", "group eq \"g\"", "collection eq \"C\"",
                    "software[" + inBrackets(random.nextInt(3), text(List.of("name", "publisher")), version("version")) + "]",
                    "present[" + inBrackets(random.nextInt(3), "title eq \"siltscope\"", version("version")) + "]",
                    "people[" + one(List.of("name eq \"IMARA\"", "ou co \"works\"", "group eq \"g\"", "not (name eq \"x\")")) + "]"));
        }
        return one(List.of("not (" + rule(deep - 1) + ")", rule(deep - 1) + " and " + rule(0),
                rule(deep - 1) + " or " + rule(0)));
    }

    @Test
    void allAtOnceIsEachByItself() {
        for (int round = 0; round < 60; round++) {
            Estates estates = Estates.usual().user("imara", "works").collection("c", "ramGiB ge 8")
                    .group("g", Target.device("d3"), Target.user("imara"));
            for (int i = 0; i < 12; i++) {
                estates.device(device(i));
            }
            Audiences audiences = Audiences.of(estates.estate());
            for (int r = 0; r < 120; r++) {
                String rule = rule(random.nextInt(3));
                Rule compiled = Rule.parse(rule);
                Positions all = audiences.satisfying(rule, Scope.DEVICE);
                for (int p = 0; p < audiences.size(Scope.DEVICE); p++) {
                    assertThat(all.contains(p)).as("%s at %s", rule, audiences.estate().devices().at(p))
                            .isEqualTo(compiled.holds(audiences.rules().subject(p)));
                }
            }
        }
    }

    @Test
    void aChangedDeviceIsAskedAnewByEveryRule() {
        Estates estates = Estates.usual().user("imara", "works").collection("c", "ramGiB ge 8").group("g", Target.user("imara"));
        for (int i = 0; i < 12; i++) {
            estates.device(device(i));
        }
        Audiences audiences = Audiences.of(estates.estate());
        List<String> rules = new ArrayList<>();
        for (int r = 0; r < 200; r++) {
            String rule = rule(random.nextInt(3));
            rules.add(rule);
            audiences.satisfying(rule, Scope.DEVICE);
        }
        for (int change = 0; change < 40; change++) {
            Device next = device(random.nextInt(12));
            Device known = java.util.Objects.requireNonNull(audiences.estate().devices().find(next.id()));
            audiences = audiences.follow(audiences.estate().withDevice(known.withReport(next.facts(), next.software(),
                    next.present())));
            Audiences anew = Audiences.of(audiences.estate());
            for (String rule : rules) {
                assertThat(audiences.satisfying(rule, Scope.DEVICE)).as(rule).isEqualTo(anew.satisfying(rule, Scope.DEVICE));
            }
        }
    }
}
