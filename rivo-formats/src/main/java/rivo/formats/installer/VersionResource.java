package rivo.formats.installer;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/** The texts of a version resource: blocks in blocks, each with its length, a key, and a value or further blocks. */
final class VersionResource {

    private static final int DEEPEST = 4;
    private static final int LONGEST = 1000;
    /** The key under which the version stands that is told by numbers, whatever the texts say. */
    static final String FIXED = "fixed version";
    private static final int FIXED_LENGTH = 52;
    private static final int FIXED_SIGNATURE = 0xFEEF04BD;

    private VersionResource() {
    }

    /** Puts each text that is told under its key; the first of a key stays. */
    static void read(ByteBuffer resource, Map<String, String> told) {
        block(resource.order(ByteOrder.LITTLE_ENDIAN), 0, resource.limit(), 0, told);
    }

    private static void block(ByteBuffer all, int from, int to, int depth, Map<String, String> told) {
        int end = Math.min(to, from + (all.getShort(from) & 0xffff));
        int valueLength = all.getShort(from + 2) & 0xffff;
        boolean isText = all.getShort(from + 4) == 1;
        int keyEnd = from + 6;
        while (keyEnd + 1 < end && all.getShort(keyEnd) != 0) {
            keyEnd += 2;
        }
        String key = text(all, from + 6, keyEnd);
        int value = aligned(keyEnd + 2);
        if (depth == DEEPEST - 1) {
            int valueEnd = Math.min(end, value + valueLength * 2);
            String text = value < valueEnd && isText ? text(all, value, valueEnd) : "";
            int nul = text.indexOf('\0');
            String plain = (nul < 0 ? text : text.substring(0, nul)).strip();
            if (!plain.isEmpty() && plain.length() <= LONGEST) {
                told.putIfAbsent(key, plain);
            }
            return;
        }
        if (depth == 0 && valueLength >= FIXED_LENGTH && value + FIXED_LENGTH <= end && all.getInt(value) == FIXED_SIGNATURE) {
            int major = all.getInt(value + 8);
            int minor = all.getInt(value + 12);
            if (major != 0 || minor != 0) {
                told.put(FIXED, (major >>> 16) + "." + (major & 0xffff) + "." + (minor >>> 16) + "." + (minor & 0xffff));
            }
        }
        int at = depth == 0 ? aligned(value + valueLength) : value;
        while (at + 6 <= end && (all.getShort(at) & 0xffff) >= 6) {
            block(all, at, end, depth + 1, told);
            at = aligned(at + (all.getShort(at) & 0xffff));
        }
    }

    private static int aligned(int at) {
        return at + 3 & ~3;
    }

    private static String text(ByteBuffer all, int from, int to) {
        byte[] bytes = new byte[Math.max(0, to - from & ~1)];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = all.get(from + i);
        }
        return new String(bytes, StandardCharsets.UTF_16LE);
    }
}
