package rivo.directory;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.Attribute;
import com.unboundid.ldap.sdk.Entry;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;

class StableIdTest {

    @Test
    void anObjectGuidHasItsFirstThreeFieldsTurnedRound() {
        byte[] guid = HexFormat.of().parseHex("33221100554477668899aabbccddeeff");
        assertThat(StableId.of(new Entry("cn=x", new Attribute("objectGUID", guid))))
                .isEqualTo("00112233-4455-6677-8899-aabbccddeeff");
    }

    @Test
    void anEntryUuidComesFirst() {
        assertThat(StableId.of(new Entry("cn=x", new Attribute("entryUUID", "A0B1"),
                new Attribute("objectGUID", new byte[16])))).isEqualTo("a0b1");
    }

    @Test
    void aGuidOfAnotherLengthIsNone() {
        assertThat(StableId.of(new Entry("cn=x", new Attribute("objectGUID", new byte[5])))).isNull();
    }
}
