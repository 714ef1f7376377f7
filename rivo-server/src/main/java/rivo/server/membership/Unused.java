package rivo.server.membership;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.server.directory.DisabledAccounts;
import rivo.server.fleet.Fleet;

/**
 * What is in audiences and of no use there: accounts that are disabled, and devices that never called in. Of one snapshot; counted for all
 * audiences at once. Of one thread.
 *
 * @param disabledPeople the ids of people whose account is disabled
 * @param peopleOf how many of them each audience holds
 * @param computersOf how many disabled computers each group lists, and each OU has in itself
 * @param never the devices that have never called in
 */
record Unused(Set<String> disabledPeople, Map<Target, Integer> peopleOf, Map<String, Integer> computersOf, Never never) {

    /** Those that have never called in: looked up one by one, until so many were that it pays to look all up. */
    static final class Never {

        private final Estate estate;
        private final Fleet fleet;
        private final DeviceSet every;
        private @Nullable DeviceSet all;
        private long looked;

        Never(Audiences audiences, Fleet fleet) {
            this.estate = audiences.estate();
            this.every = audiences.everyDevice();
            this.fleet = fleet;
        }

        boolean contains(int position) {
            return fleet.lastSeen(estate.devices().at(position).id()) == null;
        }

        DeviceSet in(DeviceSet devices) {
            looked += devices.size();
            if (all == null && looked > every.size()) {
                all = every.filter(this::contains);
            }
            return all == null ? devices.filter(this::contains) : devices.and(all);
        }
    }


    static Unused in(Audiences audiences, Fleet fleet, JdbcClient db) {
        Estate estate = audiences.estate();
        Set<String> disabled = DisabledAccounts.people(db);
        Map<Target, Integer> people = new HashMap<>();
        for (String id : disabled) {
            User user = estate.users().find(id);
            if (user != null) {
                audiences.groupsHolding(Target.user(id)).forEach(group -> people.merge(Target.group(group), 1, Integer::sum));
                for (Ou ou = user.ou() == null ? null : estate.ous().find(user.ou()); ou != null; ou = ou.parent() == null ? null : estate.ous().find(ou.parent())) {
                    people.merge(Target.ou(ou.id()), 1, Integer::sum);
                }
            }
        }
        return new Unused(disabled, people, DisabledAccounts.computers(db), new Never(audiences, fleet));
    }

    /** In a few words each; none where all of it is of use. */
    List<String> oddities(AudienceLook look) {
        List<String> odd = new ArrayList<>();
        int people = peopleOf.getOrDefault(look.target(), 0);
        if (people > 0) {
            odd.add(people == 1 ? "one person's account is disabled" : people + " people's accounts are disabled");
        }
        int computers = computersOf.getOrDefault(look.target().id(), 0);
        if (computers > 0) {
            odd.add(computers == 1 ? "one computer's account is disabled" : computers + " computers' accounts are disabled");
        }
        int all = look.devices();
        int unseen = never.in(look.audiences().devicesIn(look.target())).size();
        if (unseen > 0) {
            odd.add(unseen == all ? all == 1 ? "its device has never called in" : "none of its devices has ever called in"
                    : unseen == 1 ? "one has never called in" : unseen + " have never called in");
        }
        return odd;
    }

    /** What is the matter with one member; empty where nothing is. */
    List<String> of(Target member, Estate estate) {
        if (member.kind() == Target.Kind.USER) {
            return disabledPeople.contains(member.id()) ? List.of("account disabled") : List.of();
        }
        return never.contains(estate.devices().position(member.id())) ? List.of("never called in") : List.of();
    }
}
