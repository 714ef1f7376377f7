package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** By whose rules the versions of packages are compared; all others are as section 5 of the resolution rules says. Pure functions. */
public enum VersionOrder {
    /** As dpkg does (Debian Policy, section 5.6.12): epoch, upstream version, revision; {@code ~} comes before nothing. */
    @JsonProperty("deb")
    DEBIAN,
    /** As rpm does (rpm-version(7)): epoch, version, release; {@code ~} comes before nothing, {@code ^} behind it. */
    @JsonProperty("rpm")
    RPM;

    private static final Pattern RPM_PART = Pattern.compile("[0-9]+|[A-Za-z]+|~|\\^");

    /** Below 0 where the first is older, above where it is newer. */
    public int compare(String one, String other) {
        return compare(Parts.of(one), Parts.of(other));
    }

    private int compare(Parts one, Parts other) {
        int order = Long.compare(one.epoch, other.epoch);
        order = order != 0 ? order : this == DEBIAN ? debian(one.upstream, other.upstream) : rpm(one.upstream, other.upstream);
        // To dpkg no revision is the revision 0, to rpm it comes before any.
        return order != 0 ? order : this == DEBIAN ? debian(one.revision, other.revision) : rpm(one.revision, other.revision);
    }

    /** The version of the software alone, without the epoch before it and the packager's revision behind it. */
    public static String upstream(String version) {
        return Parts.of(version).upstream;
    }

    private record Parts(long epoch, String upstream, String revision) {

        private static final Pattern EPOCH = Pattern.compile("([0-9]{1,9}):(.*)", Pattern.DOTALL);

        static Parts of(String version) {
            Matcher epoch = EPOCH.matcher(version);
            boolean hasEpoch = epoch.matches();
            String rest = hasEpoch ? epoch.group(2) : version;
            int hyphen = rest.lastIndexOf('-');
            return new Parts(hasEpoch ? Long.parseLong(epoch.group(1)) : 0, hyphen < 0 ? rest : rest.substring(0, hyphen), hyphen < 0 ? "" : rest.substring(hyphen + 1));
        }
    }

    /** By turns what are no digits, letter by letter, and digits, by their value. */
    private static int debian(String one, String other) {
        int i = 0;
        int j = 0;
        while (i < one.length() || j < other.length()) {
            while (i < one.length() && !isDigit(one.charAt(i)) || j < other.length() && !isDigit(other.charAt(j))) {
                int order = Integer.compare(weight(one, i), weight(other, j));
                if (order != 0) {
                    return order;
                }
                i++;
                j++;
            }
            int oneEnd = digitsEnd(one, i);
            int otherEnd = digitsEnd(other, j);
            int order = numbers(one.substring(Math.min(i, one.length()), oneEnd), other.substring(Math.min(j, other.length()), otherEnd));
            if (order != 0) {
                return order;
            }
            i = oneEnd;
            j = otherEnd;
        }
        return 0;
    }

    /** The end and digits come after a tilde and before letters, and these before all else. */
    private static int weight(String text, int at) {
        char c = at < text.length() ? text.charAt(at) : '0';
        return isDigit(c) ? 0 : c == '~' ? -1 : Character.isLetter(c) ? c : c + 256;
    }

    private static int digitsEnd(String text, int from) {
        int end = Math.min(from, text.length());
        while (end < text.length() && isDigit(text.charAt(end))) {
            end++;
        }
        return end;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    /** By their value, however long; nothing is 0. */
    private static int numbers(String one, String other) {
        String a = one.replaceFirst("^0+", "");
        String b = other.replaceFirst("^0+", "");
        return a.length() != b.length() ? Integer.compare(a.length(), b.length()) : Integer.signum(a.compareTo(b));
    }

    private static int rpm(String one, String other) {
        Matcher a = RPM_PART.matcher(one);
        Matcher b = RPM_PART.matcher(other);
        while (true) {
            String left = a.find() ? a.group() : "";
            String right = b.find() ? b.group() : "";
            if (left.equals("~") || right.equals("~")) {
                if (!left.equals(right)) {
                    return left.equals("~") ? -1 : 1;
                }
            } else if (left.equals("^") || right.equals("^")) {
                if (!left.equals(right)) {
                    // It is newer than the end, and older than anything else.
                    return left.equals("^") ? right.isEmpty() ? 1 : -1 : left.isEmpty() ? -1 : 1;
                }
            } else if (left.isEmpty() || right.isEmpty()) {
                return Integer.compare(left.length(), right.length());
            } else {
                boolean isNumber = isDigit(left.charAt(0));
                int order = isNumber != isDigit(right.charAt(0)) ? isNumber ? 1 : -1 : isNumber ? numbers(left, right) : Integer.signum(left.compareTo(right));
                if (order != 0) {
                    return order;
                }
            }
        }
    }
}
