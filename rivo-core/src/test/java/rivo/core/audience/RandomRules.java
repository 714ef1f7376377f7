package rivo.core.audience;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Version;

/** Makes devices, and rules that many of them satisfy and many do not. */
final class RandomRules {

    private static final List<String> NAMES = List.of("Siltscope", "siltscope", "Mudview", "Ärmel", "Weir Notes");
    private static final List<String> VERSIONS = List.of("1.0", "1.0.0", "2.0-rc1", "2", "10.1");

    private final Random random;

    RandomRules(long seed) {
        this.random = new Random(seed);
    }

    <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    /** A device of the usual tree with random facts, software and titles, of which rules ask. */
    Device device(int i) {
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

    /** @param deep how often parts are put together */
    String rule(int deep) {
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
}
