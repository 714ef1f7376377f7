package rivo.formats.estate;

/**
 * Gives equal texts the same object, without making one to find out: an estate of a hundred thousand devices says the same
 * few thousand texts millions of times. Of one thread.
 *
 * <p>Open addressing with linear probing; the table is at most half full.
 */
final class TextTable {

    private static final int FIRST_SIZE = 1 << 12;
    private static final int SPREAD = 0x9E3779B9;

    private String[] texts = new String[FIRST_SIZE];
    private int[] hashes = new int[FIRST_SIZE];
    private int used;

    /** The text of these characters. */
    String text(char[] chars, int offset, int length) {
        int hash = 0;
        for (int i = offset; i < offset + length; i++) {
            hash = 31 * hash + chars[i];
        }
        int mask = texts.length - 1;
        int at = slot(hash, mask);
        while (texts[at] != null) {
            if (hashes[at] == hash && isText(texts[at], chars, offset, length)) {
                return texts[at];
            }
            at = at + 1 & mask;
        }
        String text = new String(chars, offset, length);
        put(at, text, hash);
        return text;
    }

    /** High bits of the hash, well mixed. */
    private static int slot(int hash, int mask) {
        int mixed = hash * SPREAD;
        return (mixed ^ mixed >>> 15) & mask;
    }

    private static boolean isText(String text, char[] chars, int offset, int length) {
        if (text.length() != length) {
            return false;
        }
        for (int i = 0; i < length; i++) {
            if (text.charAt(i) != chars[offset + i]) {
                return false;
            }
        }
        return true;
    }

    private void put(int at, String text, int hash) {
        texts[at] = text;
        hashes[at] = hash;
        if (++used * 2 > texts.length) {
            grow();
        }
    }

    private void grow() {
        String[] old = texts;
        int[] oldHashes = hashes;
        texts = new String[old.length * 2];
        hashes = new int[old.length * 2];
        int mask = texts.length - 1;
        for (int i = 0; i < old.length; i++) {
            if (old[i] != null) {
                int at = slot(oldHashes[i], mask);
                while (texts[at] != null) {
                    at = at + 1 & mask;
                }
                texts[at] = old[i];
                hashes[at] = oldHashes[i];
            }
        }
    }
}
