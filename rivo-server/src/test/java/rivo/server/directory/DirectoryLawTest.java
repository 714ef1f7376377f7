package rivo.server.directory;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.resolve.Resolver;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestServer;
import rivo.server.Titles;
import rivo.server.audience.Fences;
import rivo.server.change.OuAssignment;
import rivo.server.change.Drafts;
import rivo.server.change.Publishing;
import rivo.server.estate.SnapshotReader;
import rivo.server.estate.CurrentSnapshot;

/** After any sequence of changes of the directory, of drafts and fences, memory holds what a restart would read. */
class DirectoryLawTest {

    private static final String BASE = DemoOrganisation.BASE_DN;
    private static final int STEPS = Integer.getInteger("rivo.directory-steps", 60);
    private static final List<String> INTENTS = List.of("required", "uninstall", "none");

    @TempDir
    private Path data;
    private final long seed = System.nanoTime();
    private final Random random = new Random(seed);
    private final List<Entry> away = new ArrayList<>();
    private TestServer server;
    private int rested;

    @Test
    void memoryHoldsWhatARestartWouldRead() throws LDAPException {
        try (TestServer started = TestServer.start(data)) {
            server = started;
            Titles.add(server);
            publish(server.ou("Archive"), "required");
            takeAway("ou=Archive,ou=Corporate," + BASE);
            for (int step = 0; step < STEPS; step++) {
                for (int i = random.nextInt(3); i >= 0; i--) {
                    change();
                }
                assertThat(server.bean(DirectoryFollower.class).scanNow(true).kind()).as("seed %d, step %d", seed, step).isEqualTo("following");
                check("seed " + seed + ", step " + step);
            }
            assertThat(rested).as("something rested, or less was tested than this says").isPositive();
        }
    }

    private void change() throws LDAPException {
        switch (random.nextInt(9)) {
            case 0 -> takeAway(one("(objectClass=device)"));
            case 1, 2 -> bringBack();
            case 3 -> replace(one("(objectClass=device)"), "userAccountControl", List.of(random.nextBoolean() ? "4098" : "4096"));
            case 4 -> move(one("(objectClass=device)"), one("(objectClass=organizationalUnit)"));
            case 5 -> replace(one("(member=*)"), "member", List.of(one("(objectClass=device)"), one("(uid=*)")));
            case 6 -> takeAwayAnEmptyOu();
            case 7 -> publish();
            default -> {
                List<String> ous = ouIds();
                server.bean(Fences.class).raise("test", List.of(ous.get(1 + random.nextInt(ous.size() - 1))));
            }
        }
    }

    private List<String> ouIds() {
        return server.bean(CurrentSnapshot.class).now().estate().ous().all().stream().map(ou -> ou.id()).toList();
    }

    private String one(String filter) throws LDAPException {
        List<String> found = server.directory().search(BASE, SearchScope.SUB, filter, "1.1").getSearchEntries().stream().map(Entry::getDN).toList();
        return found.get(random.nextInt(found.size()));
    }

    private void takeAway(String dn) throws LDAPException {
        away.add(server.directory().getEntry(dn, "*", "+").duplicate());
        server.directory().delete(dn);
    }

    private void takeAwayAnEmptyOu() throws LDAPException {
        for (Entry ou : server.directory().search(BASE, SearchScope.SUB, "(objectClass=organizationalUnit)").getSearchEntries()) {
            boolean isEmpty = server.directory().search(ou.getDN(), SearchScope.ONE, "(objectClass=*)", "1.1").getEntryCount() == 0;
            if (isEmpty && !ou.getDN().startsWith("ou=Groups")) {
                takeAway(ou.getDN());
                return;
            }
        }
    }

    private void bringBack() throws LDAPException {
        if (!away.isEmpty()) {
            Entry entry = away.get(random.nextInt(away.size()));
            if (server.directory().getEntry(entry.getParentDNString()) != null && server.directory().getEntry(entry.getDN()) == null) {
                server.directory().add(entry);
                away.remove(entry);
            }
        }
    }

    private void replace(String dn, String attribute, List<String> values) throws LDAPException {
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, attribute, values.toArray(String[]::new)));
    }

    private void move(String dn, String to) throws LDAPException {
        String name = dn.substring(0, dn.indexOf(','));
        if (server.directory().getEntry(name + "," + to) == null) {
            server.directory().modifyDN(dn, name, false, to);
        }
    }

    /** Now and then at the empty OU, which goes and comes back. */
    private void publish() {
        List<String> ous = ouIds();
        String ou = server.bean(CurrentSnapshot.class).now().estate().ous().all().stream().filter(o -> o.name().equals("Archive") && random.nextBoolean())
                .map(Ou::id).findFirst().orElse(ous.get(random.nextInt(ous.size())));
        publish(ou, INTENTS.get(random.nextInt(3)));
    }

    private void publish(String ou, String intent) {
        server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", ou, intent, random.nextBoolean()));
        if (server.bean(Drafts.class).size("test") > 0) {
            Publishing publishing = server.bean(Publishing.class);
            publishing.publish("test", "for the tests", publishing.token("test"));
        }
    }

    private void check(String what) {
        Resolver now = server.bean(CurrentSnapshot.class).now().resolver();
        Estate anew = server.bean(SnapshotReader.class).read(now.estate().asOf()).estate();
        EstateParts mine = now.estate().parts();
        EstateParts read = anew.parts();
        assertThat(mine.ous()).as(what).containsExactlyInAnyOrderElementsOf(read.ous());
        assertThat(mine.users()).as(what).isEqualTo(read.users());
        assertThat(mine.devices()).as(what).isEqualTo(read.devices());
        assertThat(members(mine)).as(what).isEqualTo(members(read));
        assertThat(mine.assignments()).as(what).isEqualTo(read.assignments());
        assertThat(mine.gone()).as(what).containsExactlyInAnyOrderElementsOf(read.gone());
        Resolver restarted = Resolver.of(anew);
        for (Device device : anew.devices().all()) {
            assertThat(now.device(device)).as(what + ", " + device.name()).isEqualTo(restarted.device(device));
        }
        rested += mine.gone().size();
    }

    private static Set<String> members(EstateParts parts) {
        return parts.groups().stream().map(g -> g.id() + " " + g.name() + " " + new HashSet<>(g.members()).stream().map(Target::toString).sorted()
                .toList()).collect(Collectors.toSet());
    }
}
