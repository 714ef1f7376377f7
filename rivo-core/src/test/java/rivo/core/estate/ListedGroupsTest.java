package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ListedGroupsTest {

    private static final IdIndex DEVICES = index("QB-LAB-001", "QB-LAB-002");
    private static final IdIndex USERS = index("rowena", "mirko");
    private static final Group LAB = new Group("lab", "", List.of(Target.user("mirko"), Target.device("QB-LAB-002"), Target.group("all"),
            Target.device("QB-LAB-001")));
    /** It lists one whom there is not yet. */
    private static final Group LATER = new Group("later", "", List.of(Target.device("QB-LAB-001"), Target.device("QB-LAB-003")));

    private static IdIndex index(String... ids) {
        return IdIndex.of(List.of(ids), id -> id);
    }

    private static ListedGroups groups(Group... groups) {
        return ListedGroups.of(Map.of("lab", groups[0], "later", groups[1]), DEVICES, USERS);
    }

    @Test
    void membersAreListedByTheirNumbersInTheirOrder() {
        Listing listing = groups(LAB, LATER).listing(LAB);
        assertThat(listing.devices()).containsExactly(1, 0);
        assertThat(listing.users()).containsExactly(1);
        assertThat(listing.groups()).containsExactly("all");
        assertThat(listing.size()).isEqualTo(4);
        assertThat(groups(LAB, LATER).listing(LATER).devices()).containsExactly(0);
    }

    @Test
    void whatHasBeenFoundHoldsAmongMoreDevicesAsLongAsAllOfItWasFound() {
        ListedGroups before = groups(LAB, LATER);
        Listing found = before.listing(LAB);
        before.listing(LATER);
        ListedGroups among = before.among(DEVICES.following(List.of("QB-LAB-001", "QB-LAB-002", "QB-LAB-003"), List.of("QB-LAB-003"), id -> id), USERS);
        assertThat(among.listing(LAB)).isSameAs(found);
        assertThat(among.listing(LATER).devices()).containsExactly(0, 2);
        assertThat(before.among(DEVICES, USERS)).as("the very same").isSameAs(before);
        ListedGroups anew = before.among(index("QB-LAB-000", "QB-LAB-001", "QB-LAB-002"), USERS);
        assertThat(anew.listing(LAB).devices()).as("of other numbers").containsExactly(2, 1);
    }

    @Test
    void anotherGroupOfTheSameIdIsFoundAnew() {
        ListedGroups before = groups(LAB, LATER);
        before.listing(LAB);
        Group changed = new Group("lab", "", List.of(Target.device("QB-LAB-001")));
        ListedGroups after = before.with(Map.of("lab", changed, "later", LATER));
        assertThat(after.listing(changed).devices()).containsExactly(0);
        assertThat(before.listing(LAB).devices()).as("the one before goes on").containsExactly(1, 0);
        assertThat(after.byId()).containsEntry("lab", changed);
    }

    @Test
    void whatIsKnownOfAGroupThatHasGoneTakesNoMemory() {
        ListedGroups before = groups(LAB, LATER);
        Listing lab = before.listing(LAB);
        Listing later = before.listing(LATER);
        before.with(Map.of("later", LATER));
        assertThat(before.listing(LATER)).isSameAs(later);
        assertThat(before.listing(LAB)).as("found anew").isNotSameAs(lab).usingRecursiveComparison().isEqualTo(lab);
    }

    @Test
    void whatListsSomeIsTold() {
        ListedGroups groups = groups(LAB, new Group("later", "", List.of(Target.device("QB-LAB-001"))));
        List<Target> members = new ArrayList<>(LAB.members());
        members.addAll(List.of(Target.user("rowena"), Target.user("nobody"), Target.device("mirko"), Target.group("QB-LAB-001")));
        members.forEach(one -> assertThat(groups.thatList(Set.of(one)).test(LAB)).as(one.toString()).isEqualTo(LAB.members().contains(one)));
        assertThat(groups.thatList(Set.of()).test(LAB)).isFalse();
        assertThat(groups.thatList(Set.of()).test(LATER)).as("not all of it is here").isTrue();
    }

    /** By the estate's own changes of the directory: whoever comes, goes and moves. */
    @Test
    void positionsFollowWhoeverComesGoesAndMoves() {
        List<Ou> ous = List.of(new Ou("root", "", "ou=root", null, false), new Ou("labs", "", "ou=labs", "root", false));
        DirectoryChange change = DirectoryChange.none(Instant.EPOCH);
        Estate estate = Estate.of(EstateParts.none(Instant.EPOCH).withOus(ous)
                .withDevices(List.of(device("b", "labs"), device("c", "root")))
                .withGroups(List.of(new Group("g", "", List.of(Target.device("b"), Target.device("c"))))));
        assertThat(listed(estate)).containsExactly("b", "c");
        Estate more = estate.with(change.withDevices(List.of(device("a", "root"), device("d", "labs")), Set.of()));
        assertThat(listed(more)).containsExactly("b", "c");
        Estate moved = more.with(change.withDevices(List.of(device("c", "labs"), device("b", "root")), Set.of()));
        assertThat(listed(moved)).containsExactly("b", "c");
        Estate without = moved.with(change.withDevices(List.of(), Set.of("b")));
        assertThat(listed(without)).containsExactly("c");
        Estate back = without.with(change.withDevices(List.of(device("b", "root")), Set.of()));
        assertThat(listed(back)).as("once a member, but no more").containsExactly("c");
        assertThat(listed(estate)).as("the first is as it was").containsExactly("b", "c");
    }

    private static Device device(String id, String ou) {
        return Device.of(id, id, ou, List.of());
    }

    private static List<String> listed(Estate estate) {
        List<String> ids = new ArrayList<>();
        estate.listed(estate.groups().get("g"), position -> ids.add(estate.devices().at(position).id()), position -> { });
        return ids;
    }
}
