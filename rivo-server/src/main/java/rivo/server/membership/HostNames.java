package rivo.server.membership;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;

/**
 * Finds the devices that a pasted list names: a line each, or the first column of a CSV; by name, by name with a domain after it, or by serial
 * number. What stands after {@code #} is a comment. Costs a pass over the devices and one over the list. Pure functions.
 */
final class HostNames {

    static final int MOST_LINES = 20_000;
    private static final int MOST_NEAREST = 3;
    private static final int LOOKED_UP_NEAREST = 200;
    private static final int LONGEST_SHOWN = 100;
    private static final Set<String> HEADINGS = Set.of("name", "host", "hostname", "host name", "computer", "computer name", "device", "device name", "serial",
            "serial number", "fqdn");
    /** Facts by which devices report their serial number. */
    private static final List<String> SERIALS = List.of("x.serial", "x.serialnumber");

    /**
     * What a list comes to. Every line that is neither empty nor a comment is in one of the parts.
     *
     * @param matched each device once, in the order of the list
     * @param unknown lines that name no device, with the names that are most alike
     * @param doubtful lines that name more than one
     * @param doubles lines that name a device again
     */
    record HostsFound(List<MatchedHost> matched, List<UnknownHost> unknown, List<DoubtfulHost> doubtful, List<DoubleHost> doubles) {
    }

    record MatchedHost(int line, String written, String id, String name, String where) {
    }

    record UnknownHost(int line, String written, List<NearHost> nearest) {
    }

    record DoubtfulHost(int line, String written, List<NearHost> candidates) {
    }

    record NearHost(String id, String name) {
    }

    /** @param first the line that named it first */
    record DoubleHost(int line, String written, int first) {
    }

    private final Estate estate;
    private final Map<String, List<Device>> byName = new HashMap<>();
    private final Map<String, Integer> lineOf = new LinkedHashMap<>();
    private final List<MatchedHost> matched = new ArrayList<>();
    private final List<UnknownHost> unknown = new ArrayList<>();
    private final List<DoubtfulHost> doubtful = new ArrayList<>();
    private final List<DoubleHost> doubles = new ArrayList<>();

    private HostNames(Estate estate) {
        this.estate = estate;
        for (Device device : estate.devices().all()) {
            add(device.name(), device);
            SERIALS.forEach(fact -> {
                String serial = device.facts().get(fact);
                if (serial != null) {
                    add(serial, device);
                }
            });
        }
    }

    private void add(String name, Device device) {
        if (!name.isBlank()) {
            List<Device> same = byName.computeIfAbsent(folded(name), n -> new ArrayList<>(1));
            if (!same.contains(device)) {
                same.add(device);
            }
        }
    }

    private static String folded(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    /** @throws RefusedException when the list has more than {@link #MOST_LINES} lines */
    static HostsFound in(Estate estate, String text) {
        HostNames names = new HostNames(estate);
        String[] lines = text.split("\\r\\n|\\r|\\n", -1);
        if (lines.length > MOST_LINES) {
            throw new RefusedException("too-many", "text", "A list has at most " + MOST_LINES + " lines; this one has " + lines.length
                    + ". Paste it in parts.");
        }
        for (int i = 0; i < lines.length; i++) {
            String written = first(lines[i]);
            if (!written.isEmpty() && !(names.isFirst() && HEADINGS.contains(folded(written)) && !names.byName.containsKey(folded(written)))) {
                names.line(i + 1, written);
            }
        }
        return new HostsFound(names.matched, names.unknown, names.doubtful, names.doubles);
    }

    private boolean isFirst() {
        return matched.isEmpty() && unknown.isEmpty() && doubtful.isEmpty();
    }

    /** The first column, without quotes and comments. */
    private static String first(String line) {
        int comment = line.indexOf('#');
        String cell = (comment < 0 ? line : line.substring(0, comment)).split("[,;\\t]", 2)[0].strip();
        return cell.length() > 1 && cell.startsWith("\"") && cell.endsWith("\"") ? cell.substring(1, cell.length() - 1).strip() : cell;
    }

    private void line(int line, String written) {
        String shown = written.length() > LONGEST_SHOWN ? written.substring(0, LONGEST_SHOWN) + "…" : written;
        List<Device> found = byName.getOrDefault(folded(written), List.of());
        int dot = written.indexOf('.');
        if (found.isEmpty() && dot > 0) {
            found = byName.getOrDefault(folded(written.substring(0, dot)), List.of());
        }
        if (found.isEmpty()) {
            unknown.add(new UnknownHost(line, shown, unknown.size() < LOOKED_UP_NEAREST ? nearest(folded(dot > 0 ? written.substring(0, dot) : written)) : List.of()));
        } else if (found.size() > 1) {
            doubtful.add(new DoubtfulHost(line, shown, found.stream().limit(MOST_NEAREST).map(HostNames::near).toList()));
        } else {
            Device device = found.get(0);
            Integer first = lineOf.putIfAbsent(device.id(), line);
            if (first == null) {
                matched.add(new MatchedHost(line, shown, device.id(), device.name(), estate.ous().at(estate.ous().position(device.ou())).name()));
            } else {
                doubles.add(new DoubleHost(line, shown, first));
            }
        }
    }

    private static NearHost near(Device device) {
        return new NearHost(device.id(), device.name());
    }

    /** The names that differ from it by one or two letters. */
    private List<NearHost> nearest(String written) {
        List<NearHost> one = new ArrayList<>();
        List<NearHost> two = new ArrayList<>();
        for (Map.Entry<String, List<Device>> each : byName.entrySet()) {
            int distance = distance(each.getKey(), written);
            if (distance <= 2 && one.size() < MOST_NEAREST) {
                (distance == 1 ? one : two).add(near(each.getValue().get(0)));
            }
        }
        one.addAll(two);
        return one.stream().limit(MOST_NEAREST).toList();
    }

    /** How many letters have to be put in, taken out or changed; 3 for three or more. */
    private static int distance(String a, String b) {
        if (Math.abs(a.length() - b.length()) > 2) {
            return 3;
        }
        int prefix = 0;
        while (prefix < a.length() && prefix < b.length() && a.charAt(prefix) == b.charAt(prefix)) {
            prefix++;
        }
        int suffix = 0;
        while (suffix < a.length() - prefix && suffix < b.length() - prefix && a.charAt(a.length() - 1 - suffix) == b.charAt(b.length() - 1 - suffix)) {
            suffix++;
        }
        return Math.min(3, Math.max(a.length(), b.length()) - prefix - suffix);
    }
}
