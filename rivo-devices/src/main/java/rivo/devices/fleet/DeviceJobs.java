package rivo.devices.fleet;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Version;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.Work;

/** What a simulated device finds of its work on itself and in its people's profiles, and what a job that is done makes of it. Immutable. */
record DeviceJobs(Work work, DeviceState state) {

    /** Tells apart all that a device is told to do. */
    static String key(Job job) {
        return job.action() + " " + job.title() + " " + job.version() + (job.person() == null ? "" : " for " + job.person())
                + (job.rest() ? " (rest)" : "");
    }

    /** Whether there is nothing to do: the check shows it, or, where there is none, it has been done once. */
    boolean isSo(Job job) {
        if (job.rest()) {
            return job.action() == JobAction.INSTALL ? state.rests().contains(rest(job))
                    : state.rests().stream().noneMatch(rest -> rest.startsWith(restsOf(job)));
        }
        Work.Check check = check(job);
        Map<String, String> things = things(job.person());
        String version = check == null ? things.get(job.name()) : new Evidence(things).version(check);
        if (job.action() == JobAction.REMOVE) {
            return version == null;
        }
        return version != null && !version.isEmpty()
                && Version.of(version).compareTo(Version.of(Objects.requireNonNull(job.version()))) >= 0;
    }

    /** Whether a rest has what it is the rest of: the title is on the device, or off it. */
    boolean hasItsDevicePart(Job job) {
        return !job.rest() || isSo(new Job(job.title(), job.name(), job.action(), job.version(), job.contents(), job.steps()));
    }

    /** The account of the person whose job it is; null for the device's, and for somebody who is not known here. */
    @Nullable String account(Job job) {
        Work.Person person = person(job);
        return person == null ? null : person.account();
    }

    Work.@Nullable Person person(Job job) {
        return people().stream().filter(p -> p.id().equals(job.person())).findFirst().orElse(null);
    }

    List<Work.Person> people() {
        return Objects.requireNonNullElse(work.people(), List.of());
    }

    private Map<String, String> things(@Nullable String person) {
        return person == null ? state.software() : people().stream().filter(p -> p.id().equals(person)).findFirst()
                .map(p -> state.profiles().getOrDefault(p.account(), Map.of())).orElse(Map.of());
    }

    /** The state once this has been done. */
    DeviceState after(Job job) {
        if (job.rest()) {
            Set<String> rests = new HashSet<>(state.rests());
            rests.removeIf(rest -> rest.startsWith(restsOf(job)));
            if (job.action() == JobAction.INSTALL) {
                rests.add(rest(job));
            }
            return state.withRests(rests);
        }
        Evidence before = new Evidence(things(job.person()));
        Work.Check check = check(job);
        Map<String, String> things = (job.action() == JobAction.INSTALL ? before.with(job, check) : before.without(job, check)).things();
        return job.person() == null ? state.withSoftware(things) : state.withProfile(Objects.requireNonNull(account(job)), things);
    }

    private static String restsOf(Job job) {
        return job.title() + "\n" + job.person() + "\n";
    }

    private static String rest(Job job) {
        return restsOf(job) + job.version();
    }

    private Work.@Nullable Check check(Job job) {
        List<Work.Check> checks = job.person() == null ? work.checks() : Objects.requireNonNullElse(work.personChecks(), List.of());
        return checks.stream().filter(c -> c.title().equals(job.title())).findFirst().orElse(null);
    }

    /** The titles that are found, on the device and in the profiles of those of its people who have one here. */
    List<Report.Found> present() {
        List<Report.Found> present = new ArrayList<>();
        find(work.checks(), state.software(), null, present);
        for (Work.Person person : people()) {
            Map<String, String> profile = state.profiles().get(person.account());
            if (profile != null) {
                find(Objects.requireNonNullElse(work.personChecks(), List.of()), profile, person.id(), present);
            }
        }
        return present;
    }

    private static void find(List<Work.Check> checks, Map<String, String> things, @Nullable String person, List<Report.Found> found) {
        Evidence evidence = new Evidence(things);
        for (Work.Check check : checks) {
            String version = evidence.version(check);
            if (version != null) {
                found.add(new Report.Found(check.title(), version.isEmpty() ? null : version, person));
            }
        }
    }
}
