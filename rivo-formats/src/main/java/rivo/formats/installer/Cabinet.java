package rivo.formats.installer;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import org.jspecify.annotations.Nullable;

/** The first file of a cabinet ("Microsoft Cabinet Format" and "MSZIP Compression", Microsoft) that lies somewhere in a Windows program. */
final class Cabinet {

    private static final int SIGNATURE = 0x4643534d;
    private static final int HEAD = 36;
    private static final int HAS_RESERVED = 4;
    private static final int NOT_PACKED = 0;
    private static final int MSZIP = 1;
    private static final int WINDOW = 1 << 15;
    private static final int MOST = 4 << 20;
    private static final int BLOCK_HEAD = 8;
    private static final int BLOCK_MARK = 2;

    private Cabinet() {
    }

    static boolean isAt(PeFile file, long at) throws IOException {
        return at > 0 && at <= file.size() - HEAD && file.bytes(at, 4).getInt() == SIGNATURE;
    }

    /** Null where it is packed in a way that is not read here. */
    static byte @Nullable [] first(PeFile file, long at) throws IOException {
        ByteBuffer head = file.bytes(at, HEAD + 4);
        int folders = head.getShort(26) & 0xffff;
        int files = head.getShort(28) & 0xffff;
        boolean isReserved = (head.getShort(30) & HAS_RESERVED) != 0;
        int ofHead = isReserved ? 4 + (head.getShort(HEAD) & 0xffff) : 0;
        int ofBlock = isReserved ? head.get(HEAD + 3) & 0xff : 0;
        if (folders == 0 || files == 0) {
            return null;
        }
        ByteBuffer folder = file.bytes(at + HEAD + ofHead, 8);
        int packing = folder.getShort(6) & 0xf;
        ByteBuffer entry = file.bytes(at + (head.getInt(16) & 0xffffffffL), 8);
        int size = entry.getInt(0);
        boolean isFirst = entry.getInt(4) == 0;
        if (packing != NOT_PACKED && packing != MSZIP || size < 0 || size > MOST || !isFirst) {
            return null;
        }
        return unpacked(file, at + (folder.getInt(0) & 0xffffffffL), folder.getShort(4) & 0xffff, ofBlock, packing == MSZIP, size);
    }

    private static byte[] unpacked(PeFile file, long from, int blocks, int reserved, boolean packed, int size) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        long at = from;
        for (int i = 0; i < blocks && out.size() < size; i++) {
            ByteBuffer block = file.bytes(at, BLOCK_HEAD);
            int length = block.getShort(4) & 0xffff;
            int comes = block.getShort(6) & 0xffff;
            byte[] data = file.bytes(at + BLOCK_HEAD + reserved, length).array();
            out.writeBytes(packed ? inflated(data, comes, out.toByteArray()) : data);
            at += BLOCK_HEAD + reserved + length;
        }
        if (out.size() < size) {
            throw new IOException("its cabinet ends before its first file does");
        }
        return Arrays.copyOf(out.toByteArray(), size);
    }

    /** Each block may refer back to what the one before it came to. */
    private static byte[] inflated(byte[] data, int comes, byte[] before) throws IOException {
        Inflater inflater = new Inflater(true);
        try {
            if (before.length > 0) {
                int from = Math.max(0, before.length - WINDOW);
                inflater.setDictionary(before, from, before.length - from);
            }
            inflater.setInput(data, Math.min(BLOCK_MARK, data.length), Math.max(0, data.length - BLOCK_MARK));
            byte[] block = new byte[comes];
            int done = inflater.inflate(block);
            if (done < comes) {
                throw new IOException("a block of its cabinet is damaged");
            }
            return block;
        } catch (DataFormatException e) {
            throw new IOException("a block of its cabinet is damaged", e);
        } finally {
            inflater.end();
        }
    }
}
