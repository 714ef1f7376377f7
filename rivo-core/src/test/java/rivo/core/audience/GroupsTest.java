package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Target;

/** Groups in chains and circles, against walking down from each. */
class GroupsTest {

    private static final int GROUPS = 7;

    private static Target member(Random random) {
        int kind = random.nextInt(5);
        return kind < 2 ? Target.device("d" + random.nextInt(6)) : kind < 3 ? Target.user("u" + random.nextInt(4))
                : Target.group("g" + random.nextInt(GROUPS));
    }

    private static List<Target> members(Random random) {
        Set<Target> members = new LinkedHashSet<>();
        for (int n = random.nextInt(4); n > 0; n--) {
            members.add(member(random));
        }
        return List.copyOf(members);
    }

    private static Estate estate(Random random) {
        Estates estates = Estates.usual();
        for (int i = 0; i < 6; i++) {
            estates.device("d" + i, i % 2 == 0 ? "bench" : null).user("u" + i, "works");
        }
        for (int g = 0; g < GROUPS; g++) {
            estates.group("g" + g, members(random).toArray(Target[]::new));
        }
        return estates.estate();
    }

    private static Set<Target> held(Estate estate, String group, Set<String> seen) {
        Set<Target> held = new HashSet<>();
        if (seen.add(group)) {
            for (Target member : Objects.requireNonNull(estate.groups().get(group)).members()) {
                held.addAll(member.kind() == Target.Kind.GROUP ? held(estate, member.id(), seen) : Set.of(member));
            }
        }
        return held;
    }

    private static List<Target> everyone(Estate estate) {
        List<Target> all = new ArrayList<>();
        estate.devices().all().forEach(d -> all.add(Target.device(d.id())));
        estate.users().all().forEach(u -> all.add(Target.user(u.id())));
        return all;
    }

    private static void check(Estate estate, Groups groups, String what) {
        for (Group group : estate.groups().values()) {
            Set<Target> held = held(estate, group.id(), new HashSet<>());
            Set<Target> said = new HashSet<>();
            groups.of(group.id()).devices().forEach(p -> said.add(Target.device(estate.devices().at(p).id())));
            groups.of(group.id()).users().forEach(p -> said.add(Target.user(estate.users().at(p).id())));
            assertThat(said).as("%s, %s", what, group).isEqualTo(held);
        }
        for (Target member : everyone(estate)) {
            Set<String> holding = new HashSet<>();
            for (String id : estate.groups().keySet()) {
                boolean holds = held(estate, id, new HashSet<>()).contains(member);
                if (holds) {
                    holding.add(id);
                }
                chain(groups.chain(id, member), id, member, holds, what);
                ways(estate, groups, id, member, what);
            }
            assertThat(groups.holding(member)).as("%s, %s", what, member).isEqualTo(holding);
        }
    }

    /** One way for each group below that lists the member, the shortest first, each a chain. */
    private static void ways(Estate estate, Groups groups, String from, Target member, String what) {
        List<List<Group>> ways = groups.ways(from, member);
        Set<String> below = new HashSet<>();
        held(estate, from, below);
        Set<String> listing = new HashSet<>();
        for (String id : below) {
            if (Objects.requireNonNull(estate.groups().get(id)).members().contains(member)) {
                listing.add(id);
            }
        }
        Set<String> ends = new HashSet<>();
        for (int i = 0; i < ways.size(); i++) {
            chain(ways.get(i), from, member, true, what);
            ends.add(ways.get(i).get(ways.get(i).size() - 1).id());
            assertThat(i == 0 || ways.get(i - 1).size() <= ways.get(i).size()).as("%s, %s in %s", what, member, from).isTrue();
        }
        assertThat(ends).as("%s, %s in %s", what, member, from).isEqualTo(listing).hasSize(ways.size());
        assertThat(groups.chain(from, member)).isEqualTo(ways.isEmpty() ? List.of() : ways.get(0));
    }

    private static void chain(List<Group> chain, String from, Target member, boolean holds, String what) {
        assertThat(chain.isEmpty()).as("%s, %s in %s", what, member, from).isEqualTo(!holds);
        for (int i = 0; i < chain.size(); i++) {
            Target next = i + 1 < chain.size() ? Target.group(chain.get(i + 1).id()) : member;
            assertThat(chain.get(i).members()).as("%s, %s in %s", what, member, from).contains(next);
        }
        if (holds) {
            assertThat(chain.get(0).id()).isEqualTo(from);
            assertThat(chain).doesNotHaveDuplicates();
        }
    }

    @Test
    void groupsHoldWhatWalkingDownFindsAndKeepItWhileOthersChange() {
        for (int seed = 0; seed < 150; seed++) {
            Random random = new Random(seed);
            Estate estate = estate(random);
            Groups groups = new Groups(estate);
            check(estate, groups, "seed " + seed);
            for (int step = 0; step < 4; step++) {
                String id = "g" + random.nextInt(GROUPS);
                Estate next = random.nextBoolean() ? estate.withGroup(new Group(id, id, members(random)))
                        : estate.withDevice(estate.devices().at(random.nextInt(5)).withOu("stores"));
                Groups followed = Groups.after(groups, next, Moves.between(estate.devices(), next.devices()),
                        Moves.between(estate.users(), next.users()));
                Set<String> changed = followed.changedSince(groups);
                for (String kept : next.groups().keySet()) {
                    if (!changed.contains(kept)) {
                        assertThat(held(next, kept, new HashSet<>())).isEqualTo(held(estate, kept, new HashSet<>()));
                    }
                }
                check(next, followed, "seed " + seed + ", step " + step);
                estate = next;
                groups = followed;
            }
        }
    }

    @Test
    void aGroupThatNobodyTouchedIsNotGatheredAgain() {
        Estate before = Estates.usual().group("still", Target.device("d-labs")).group("other", Target.device("d-works")).estate();
        Groups groups = new Groups(before);
        Groups.Members held = groups.of("still");
        Estate after = before.withGroup(new Group("other", "other", List.of(Target.device("d-bench"))));
        Moves none = Moves.none(before.devices().size());
        Groups followed = Groups.after(groups, after, none, Moves.none(before.users().size()));
        assertThat(followed.of("still")).isSameAs(held);
        assertThat(followed.changedSince(groups)).containsExactly("other");
    }

    @Test
    void aGroupIsMadeOfWhatItListsAndOfTheGroupsInIt() {
        Estate estate = Estates.usual().user("u1", "works").group("crew", Target.device("d-bench"), Target.device("d-labs"))
                .group("pool", Target.device("d-labs"), Target.user("u1"), Target.group("crew"), Target.group("ring"))
                .group("ring", Target.group("pool")).estate();
        GroupMakeup pool = new Groups(estate).makeup("pool");
        assertThat(pool.devices().size()).isEqualTo(1);
        assertThat(pool.people()).isEqualTo(1);
        assertThat(pool.parts()).extracting(part -> part.group().id() + " " + part.devices().size() + " " + part.people() + " " + part.inCircle())
                .containsExactly("crew 2 0 false", "ring 2 1 true");
        assertThat(pool.parts().get(0).devices().and(pool.devices()).size()).as("listed twice").isEqualTo(1);
        assertThat(pool.holders()).extracting(Group::id).containsExactly("ring");
        assertThat(pool.circle()).extracting(Group::id).containsExactly("ring");
        GroupMakeup crew = new Groups(estate).makeup("crew");
        assertThat(crew.parts()).isEmpty();
        assertThat(crew.circle()).isEmpty();
        assertThat(crew.holders()).extracting(Group::id).containsExactly("pool");
    }
}
