package rivo.bench;

import java.util.List;
import java.util.Map;
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
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.explain.Trail;
import rivo.core.explain.Trails;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.BaseOutcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.Resolver.UnitOutcome;
import rivo.core.resolve.UnitsWith;

/** The core's figures by JMH; {@code ./rivo bench} takes them at full size with their floors. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 5)
@Measurement(iterations = 3, time = 5)
@Fork(value = 1, jvmArgsAppend = {"-Xmx6g", "-XX:+UseParallelGC"})
public class ResolveBenchmark {

    /** Devices; a hundredth as many assignments. */
    @Param({"100000", "1000000"})
    private int devices = 0;

    private final Random random = new Random(7);
    private Resolver resolver = Resolver.of(Estate.of(Fleet.parts(new Fleet.Size(10, 10, 10, 10, 10, 2, 3))));
    private Trails trails = Trails.of(resolver);
    private Estate edited = resolver.estate();

    /** Makes the estate, its audiences, and one edit. */
    @Setup
    public void setUp() {
        Estate estate = Estate.of(Fleet.parts(new Fleet.Size(devices, devices / 100, 500, 3000, 500, 12, 3)));
        resolver = Resolver.of(estate);
        trails = Trails.of(resolver);
        resolver.all(2);
        Assignment assignment = estate.assignments().all().get(devices / 200);
        edited = estate.withAssignments(List.of(assignment.withIntent(assignment.intent() == Intent.REQUIRED
                ? Intent.UNINSTALL : Intent.REQUIRED)));
    }

    private Device anyDevice() {
        return resolver.estate().devices().at(random.nextInt(resolver.estate().devices().size()));
    }

    /** Sections 3 to 6 for every title and unit, audiences ready, two threads. */
    @Benchmark
    public Map<String, List<UnitsWith<BaseOutcome>>> ladder() {
        return resolver.follow(resolver.estate()).bases(2);
    }

    /** One device, all its titles. */
    @Benchmark
    public List<UnitOutcome> oneDevice() {
        return resolver.device(anyDevice());
    }

    /** One device with all its trails. */
    @Benchmark
    public List<Trail> oneDeviceExplained() {
        return trails.all(anyDevice());
    }

    /** One edited assignment rehearsed. */
    @Benchmark
    public Rehearsal oneEdit() {
        return Rehearsal.of(resolver, edited);
    }
}
