package rivo.directory;

import com.unboundid.ldap.sdk.Entry;
import java.nio.ByteBuffer;
import java.util.Locale;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The id by which an entry is known whatever its name: {@code entryUUID} (RFC 4530), else {@code objectGUID}. */
final class StableId {

    private StableId() {
    }

    /** In the usual text form of a UUID, lower case; null when the entry has none. */
    static @Nullable String of(Entry entry) {
        String uuid = entry.getAttributeValue("entryUUID");
        if (uuid != null && !uuid.isBlank()) {
            return uuid.toLowerCase(Locale.ROOT);
        }
        byte[] guid = entry.getAttributeValueBytes("objectGUID");
        return guid == null || guid.length != 16 ? null : fromGuid(guid);
    }

    /** The first three fields of an objectGUID are little-endian. */
    private static String fromGuid(byte[] guid) {
        ByteBuffer bytes = ByteBuffer.wrap(guid);
        long high = Integer.toUnsignedLong(Integer.reverseBytes(bytes.getInt())) << 32
                | Integer.toUnsignedLong(Short.toUnsignedInt(Short.reverseBytes(bytes.getShort()))) << 16
                | Short.toUnsignedInt(Short.reverseBytes(bytes.getShort()));
        return new UUID(high, bytes.getLong()).toString();
    }
}
