package rivo.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.plan.Plan;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;

/** Resolving one title for everybody, everything for one device, and rehearsing one edit. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
public class ResolveBenchmark {

    private static final int OUS = 400;
    private static final int ASSIGNMENTS_OF_A_TITLE = 20;

    @Param({"6480", "100000", "1000000"})
    private int devices;

    private Title title = new Title("t", "t", List.of());
    private Estate before;
    private Estate after;
    private Device device;

    public ResolveBenchmark() {
        before = Estate.of(List.of(new Ou("o0", "o0", "", null, false)), List.of(), List.of(), List.of(), List.of());
        after = before;
        device = new Device("d", "d", null, List.of(), Map.of(), List.of(), List.of());
    }

    @Setup
    public void build() {
        Random random = new Random(1);
        title = new Title("t0", "t0", List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED, List.of("all"))));
        List<Ou> ous = new ArrayList<>(List.of(new Ou("o0", "o0", "", null, false)));
        for (int i = 1; i < OUS; i++) {
            ous.add(new Ou("o" + i, "o" + i, "", "o" + random.nextInt(i), random.nextInt(20) == 0));
        }
        List<Device> all = new ArrayList<>();
        for (int i = 0; i < devices; i++) {
            all.add(new Device("d" + i, "d" + i, "o" + random.nextInt(OUS), List.of(), Map.of(), List.of(),
                    List.of()));
        }
        List<Assignment> assignments = new ArrayList<>();
        for (int i = 0; i < ASSIGNMENTS_OF_A_TITLE; i++) {
            assignments.add(new Assignment("a" + i, i, AssignmentState.ACTIVE, "t0",
                    Intent.values()[random.nextInt(2)], List.of("o" + random.nextInt(OUS)), i == 0, 500));
        }
        before = Estate.of(ous, List.of(), all, List.of(title), assignments);
        after = before.withAssignments(List.of(new Assignment("new", ASSIGNMENTS_OF_A_TITLE, AssignmentState.ACTIVE,
                "t0", Intent.REQUIRED, List.of("o7"), false, 500)));
        device = Objects.requireNonNull(before.devices().find("d17"));
    }

    @Benchmark
    public TitleOutcomes oneTitleForEverybody() {
        return new Resolver(before).title(title);
    }

    @Benchmark
    public Plan everythingForOneDevice() {
        return Plan.of(before, device);
    }

    @Benchmark
    public Rehearsal oneEditRehearsed() {
        return Rehearsal.of(before, after, List.of("t0"));
    }
}
