package rivo.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.BinaryOperator;
import rivo.core.audience.Audiences;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.explain.Trails;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateWriter;

/**
 * {@code ./rivo bench}: makes its estates, takes the floors and the figures in one run, prints them, and writes
 * {@code docs/performance.md}.
 *
 * <p>Every figure is the best of several tries, as its floor is: what the machine did besides is not what is measured.
 */
public final class Bench {

    private static final double NANOS_OF_MILLI = 1e6;
    private static final double MIB = 1 << 20;
    private static final int THREADS = 2;
    private static final int WARM = 10_000;
    private static final String SECTION = "\n## ";
    /** After the first so many tries, not all that relations take is compiled yet; after so many more, it is. */
    private static final int FIRST = 20;
    private static final int MORE = 40;
    private static final String RELATED = "## A catalogue that hangs together\n\nWritten by `./rivo bench knotted` on ";

    private final List<String> rows = new ArrayList<>();

    private Bench() {
    }

    /**
     * @param arguments where to write the page, the launcher, and {@code quick} for a hundredth of the sizes, or {@code knotted} for the catalogue that hangs
     *     together alone
     */
    public static void main(String[] arguments) throws Exception {
        boolean quick = arguments.length > 2 && arguments[2].equals("quick");
        knotted(arguments, quick);
        if (arguments.length > 2 && arguments[2].equals("knotted")) {
            return;
        }
        Bench bench = new Bench();
        bench.large(quick ? 10_000 : 1_000_000, quick ? 1_000 : 10_000);
        System.gc();
        bench.middle(quick ? 2_000 : 100_000, quick ? 200 : 2_000);
        System.gc();
        bench.file(Path.of(arguments[1]), new Fleet.Size(quick ? 1_000 : 100_000, 2_000, 500, 600, 100, 74, 8), "≤ 30 s, ≤ 3 GiB");
        bench.write(Path.of(arguments[0]), quick);
    }

    /** The figures of a catalogue most of whose titles are one family, beside those of the same estate without relations. */
    private static void knotted(String[] arguments, boolean quick) throws Exception {
        Bench bench = new Bench();
        bench.related(quick ? 1_000 : 100_000, 2_000);
        System.gc();
        bench.file(Path.of(arguments[1]), new Fleet.Size(quick ? 1_000 : 100_000, 2_000, 500, 3000, 300, 24, 3, Fleet.Catalogue.KNOTTED), "≤ 30 s, ≤ 2 GiB");
        System.gc();
        bench.relatedAtLarge(quick ? 5_000 : 1_000_000, quick ? 500 : 10_000);
        System.gc();
        if (!quick) {
            bench.writeRelated(Path.of(arguments[0]));
        }
    }

    private static Estate related(int devices, int assignments, Fleet.Catalogue catalogue) {
        return Estate.of(Fleet.parts(new Fleet.Size(devices, assignments, 500, 3000, 300, 24, 3, catalogue)));
    }

    private void related(int devices, int assignments) throws Exception {
        String at = words("%,d × %,d", devices, assignments);
        double[] all = new double[Fleet.Catalogue.values().length];
        double[] compiled = new double[all.length];
        Audiences[] audiences = new Audiences[all.length];
        for (int c = 0; c < all.length; c++) {
            Audiences own = Audiences.of(related(devices, assignments, Fleet.Catalogue.values()[c]));
            Resolver.of(own).bases(THREADS);
            all[c] = best(FIRST, () -> Resolver.of(own).all(THREADS));
            audiences[c] = own;
        }
        for (int c = 0; c < all.length; c++) {
            Audiences own = audiences[c];
            compiled[c] = Math.min(all[c], best(MORE, () -> Resolver.of(own).all(THREADS)));
        }
        double unrelated = all[Fleet.Catalogue.UNRELATED.ordinal()];
        double families = all[Fleet.Catalogue.FAMILIES.ordinal()];
        double knotted = all[Fleet.Catalogue.KNOTTED.ordinal()];
        row(at + ": all sections, without relations", words("%.0f ms", unrelated), "");
        row(at + ": with small families", words("%.0f ms, %.1f × without", families, families / unrelated), "");
        row(at + ": knotted", words("%.0f ms, %.1f × without", knotted, knotted / unrelated), "≤ 5,000 ms, ≤ 2 × without");
        double alone = compiled[Fleet.Catalogue.UNRELATED.ordinal()];
        double together = compiled[Fleet.Catalogue.KNOTTED.ordinal()];
        row(at + ": the same, the best of " + (FIRST + MORE) + " tries", words("%.0f ms beside %.0f ms, %.1f × without", together, alone, together / alone), "");
        Resolver resolver = Resolver.of(related(devices, assignments, Fleet.Catalogue.KNOTTED));
        edit(at + ", knotted", resolver, "");
    }

    private void relatedAtLarge(int devices, int assignments) throws Exception {
        String at = words("%,d × %,d, knotted", devices, assignments);
        Resolver[] held = {Resolver.of(related(devices, assignments, Fleet.Catalogue.KNOTTED))};
        held[0].bases(THREADS);
        row(at + ": all sections", words("%.0f ms", once(() -> held[0].all(THREADS).size())), "≤ 40,000 ms");
        Random random = new Random(1);
        double[] one = new double[3000];
        for (int i = 0; i < WARM + one.length; i++) {
            Device device = held[0].estate().devices().at(random.nextInt(devices));
            double took = 1000 * once(() -> held[0].device(device));
            one[i % one.length] = took;
        }
        row(at + ": one device, all its titles, the middle of 3,000", words("%.0f µs", middle(one)), "≤ 300 µs");
        edit(at, held[0], "≤ 150 ms, longest ≤ 1,000 ms");
    }

    private void writeRelated(Path page) throws IOException {
        String text = Files.exists(page) ? Files.readString(page) : "";
        int from = text.indexOf(RELATED);
        int next = from < 0 ? -1 : text.indexOf(SECTION, from + 1);
        String others = from < 0 ? text : text.substring(0, from) + (next < 0 ? "" : text.substring(next + 1));
        int first = others.indexOf(SECTION);
        String table = first < 0 ? others + "\n" : others.substring(0, first + 1);
        Files.writeString(page, table + RELATED + LocalDate.now() + """
                : of 500 titles, 60 in 100 need one runtime, relations are drawn at random (1.1 a title), and ten at a time replace
                each other, so that most of the device titles are one family. Beside it the same estate without relations, and with the small families
                of the first table.

                | work | figure | to reach |
                |---|---|---|
                """ + String.join("\n", rows) + "\n" + (first < 0 ? "" : others.substring(first)));
    }

    private static double best(int tries, Callable<?> work) throws Exception {
        double best = Double.MAX_VALUE;
        for (int i = 0; i < tries; i++) {
            long start = System.nanoTime();
            Object result = work.call();
            best = Math.min(best, (System.nanoTime() - start) / NANOS_OF_MILLI);
            if (result == null) {
                throw new IllegalStateException("nothing came out");
            }
        }
        return best;
    }

    private static double once(Callable<?> work) throws Exception {
        return best(1, work);
    }

    private void row(String work, String figure, String reach) {
        String row = "| " + work + " | " + figure + " | " + reach + " |";
        rows.add(row);
        System.out.println(row);
    }

    private static String words(String pattern, Object... values) {
        return String.format(Locale.ROOT, pattern, values);
    }

    private static double usedMiB() {
        System.gc();
        return (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) / MIB;
    }

    private static double peakMiB() {
        return ManagementFactory.getMemoryPoolMXBeans().stream().filter(pool -> pool.getType() == MemoryType.HEAP)
                .map(MemoryPoolMXBean::getPeakUsage).mapToLong(usage -> usage.getUsed()).sum() / MIB;
    }

    private void large(int devices, int assignments) throws Exception {
        System.gc();
        ManagementFactory.getMemoryPoolMXBeans().forEach(MemoryPoolMXBean::resetPeakUsage);
        String at = words("%,d devices × %,d assignments × 500 titles", devices, assignments);
        Estate estate = made(at, Fleet.parts(new Fleet.Size(devices, assignments, 500, 3000, 500, 12, 3)));
        Resolver[] held = new Resolver[1];
        double audience = once(() -> {
            held[0] = Resolver.of(estate);
            return held[0].bases(THREADS);
        });
        row(at + ": all audiences worked out, and sections 3 to 6, cold", words("%.0f ms", audience), "≤ 8,000 ms");
        ladder(at, held[0], 5, 5);
        double all = best(2, () -> Resolver.of(held[0].audiences()).all(THREADS));
        row(at + ": all sections, with presences and relations", words("%.0f ms", all), "");
        var outcomes = held[0].all(THREADS);
        row(at + ": heap with estate, audiences and all outcomes", words("%.0f MiB", usedMiB()), "≤ 6144 MiB");
        oneDevice(at, held[0]);
        edit(at, held[0], "≤ 60 ms");
        changes(at, held[0]);
        rules(at, estate);
        if (outcomes.isEmpty()) {
            throw new IllegalStateException("no outcomes");
        }
        row(at + ": peak heap of all this", words("%.0f MiB", peakMiB()), "≤ 6144 MiB");
    }

    /** @param tries of everything: what takes a few milliseconds is tried more often */
    private double ladder(String at, Resolver resolver, int reach, int tries) throws Exception {
        Floors floors = new Floors(resolver.audiences());
        floors.pass();
        double floor = best(tries, floors::pass);
        row(at + ": floor, the bare dense pass, one thread", words("%.1f ms", floor), "");
        double two = best(tries, () -> resolver.follow(resolver.estate()).bases(THREADS));
        double one = best(tries, () -> resolver.follow(resolver.estate()).bases(1));
        row(at + ": sections 3 to 6, both sides, two threads", words("%.0f ms, %.1f × the floor", two, two / floor),
                "≤ " + reach + " × the floor");
        row(at + ": the same, one thread", words("%.0f ms, %.1f × the floor", one, one / floor), "");
        return two;
    }

    private void oneDevice(String at, Resolver resolver) throws Exception {
        Random random = new Random(1);
        Estate estate = resolver.estate();
        Trails trails = Trails.of(resolver);
        for (int i = 0; i < WARM; i++) {
            resolver.device(estate.devices().at(random.nextInt(estate.devices().size())));
        }
        for (int i = 0; i < WARM / 10; i++) {
            trails.all(estate.devices().at(random.nextInt(estate.devices().size())));
        }
        double[] plain = new double[3000];
        double[] explained = new double[600];
        for (int i = 0; i < plain.length; i++) {
            Device device = estate.devices().at(random.nextInt(estate.devices().size()));
            plain[i] = 1000 * once(() -> resolver.device(device));
        }
        for (int i = 0; i < explained.length; i++) {
            Device device = estate.devices().at(random.nextInt(estate.devices().size()));
            explained[i] = 1000 * once(() -> trails.all(device));
        }
        row(at + ": one device, all its titles, the middle of 3,000", words("%.0f µs", middle(plain)), "≤ 200 µs");
        row(at + ": one device with all its trails, the middle of 600", words("%.0f µs", middle(explained)), "≤ 2,000 µs");
    }

    private static double middle(double[] figures) {
        Arrays.sort(figures);
        return figures[figures.length / 2];
    }

    private void edit(String at, Resolver resolver, String reach) throws Exception {
        Estate estate = resolver.estate();
        List<Double> times = new ArrayList<>();
        resolver.all(THREADS);
        for (Assignment assignment : estate.assignments().all()) {
            boolean wide = assignment.include().get(0).kind() == Target.Kind.GROUP || assignment.seq() % 3 == 0;
            if (wide && assignment.seq() % 97 == 0 && times.size() < 40) {
                Intent other = assignment.intent() == Intent.REQUIRED ? Intent.UNINSTALL : Intent.REQUIRED;
                Estate after = estate.withAssignments(List.of(assignment.withIntent(other)));
                times.add(once(() -> Rehearsal.of(resolver, after)));
            }
        }
        double[] all = times.stream().mapToDouble(t -> t).toArray();
        double middle = middle(all);
        row(at + ": one edited assignment rehearsed, the middle of " + all.length, words("%.1f ms (longest %.0f ms)",
                middle, all[all.length - 1]), reach);
    }

    private void rules(String at, Estate estate) throws Exception {
        List<String> rules = new ArrayList<>();
        for (int i = 0; i < 500; i++) {
            rules.add(Fleet.rule(i));
        }
        Audiences audiences = Audiences.of(estate);
        double cold = Double.MAX_VALUE;
        for (int i = 0; i < 3; i++) {
            // Nothing is laid out yet in new ones.
            Audiences asked = Audiences.of(estate);
            System.gc();
            cold = Math.min(cold, once(() -> rules.stream().mapToInt(r -> asked.satisfying(r, Scope.DEVICE).size()).sum()));
            audiences = asked;
        }
        row(at + ": 500 rules over all devices, columns and all", words("%.0f ms", cold), "≤ 1,000 ms");
        rulesOfOne(at, audiences);
    }

    /** One device after the other reports what another has, then stands where another does. */
    private void changes(String at, Resolver resolver) throws Exception {
        change(at + ": one device that reports anew", 40, resolver,
                (device, other) -> device.withReport(other.facts(), other.software(), other.present()));
        change(at + ": one device that is moved to another OU", 5, resolver, (device, other) -> device.withOu(other.ou()));
        ticks(at, resolver);
    }

    /** A minute goes by, again and again: hardly anything comes to something else, and most of what is known is kept. */
    private void ticks(String at, Resolver resolver) throws Exception {
        double[] taken = new double[20];
        double[] caughtUp = new double[20];
        double[] answered = new double[20];
        Resolver now = resolver;
        for (int i = 0; i < taken.length; i++) {
            Resolver before = now;
            Resolver[] next = new Resolver[1];
            taken[i] = once(() -> next[0] = before.follow(before.estate().at(before.estate().asOf().plusSeconds(60))));
            caughtUp[i] = once(() -> {
                next[0].catchUpWith(before);
                return next[0];
            });
            answered[i] = once(() -> next[0].device(next[0].estate().devices().at(0)));
            now = next[0];
        }
        row(at + ": a tick, taken into the snapshot, what was known found out again before anybody sees it, and the first answer after it, "
                + "the middle of 20", words("%.0f ms, %.0f ms, %.1f ms", middle(taken), middle(caughtUp), middle(answered)), "≤ 50 ms");
    }

    private void change(String what, int tries, Resolver resolver, BinaryOperator<Device> change) throws Exception {
        Random random = new Random(4);
        double[] taken = new double[tries];
        double[] answered = new double[tries];
        double[] rehearsed = new double[3];
        Resolver now = resolver;
        for (int i = 0; i < tries; i++) {
            Resolver before = now;
            int devices = before.estate().devices().size();
            Device newer = change.apply(before.estate().devices().at(random.nextInt(devices)),
                    before.estate().devices().at(random.nextInt(devices)));
            Resolver[] next = new Resolver[1];
            taken[i] = once(() -> next[0] = before.follow(before.estate().withDevice(newer)));
            answered[i] = once(() -> next[0].device(newer));
            if (i < rehearsed.length) {
                rehearsed[i] = once(() -> Rehearsal.of(before, next[0]));
            }
            now = next[0];
        }
        row(what + ", taken into the snapshot, and the first answer after it, the middle of " + tries,
                words("%.0f ms, %.0f ms", middle(taken), middle(answered)), "");
        row(what + ", rehearsed, the middle of 3", words("%.0f ms", middle(rehearsed)), "");
    }

    private void rulesOfOne(String at, Audiences audiences) throws Exception {
        Estate estate = audiences.estate();
        double[] one = new double[2000];
        Random random = new Random(2);
        for (int i = 0; i < WARM; i++) {
            audiences.satisfied(random.nextInt(estate.devices().size()));
        }
        for (int i = 0; i < one.length; i++) {
            int device = random.nextInt(estate.devices().size());
            one[i] = 1000 * once(() -> audiences.satisfied(device));
        }
        row(at + ": 500 rules for one changed device, the middle of 2,000", words("%.0f µs", middle(one)), "≤ 50 µs");
    }

    private Estate made(String at, EstateParts parts) throws Exception {
        Estate[] held = new Estate[1];
        double made = once(() -> {
            held[0] = Estate.of(parts);
            return held[0].devices().size();
        });
        row(at + ": the estate, checked and made of its parts", words("%.0f ms", made), "");
        return held[0];
    }

    private void middle(int devices, int assignments) throws Exception {
        Estate estate = Estate.of(Fleet.parts(new Fleet.Size(devices, assignments, 500, 600, 100, 12, 3)));
        String at = words("%,d × %,d", devices, assignments);
        Resolver resolver = Resolver.of(estate);
        resolver.bases(THREADS);
        double ladder = ladder(at, resolver, 10, 25);
        double loop = once(() -> Floors.objectLoop(resolver.audiences()));
        row(at + ": an object loop over devices, reach alone", words("%.0f ms, %.0f × the ladder", loop, loop / ladder),
                "≥ 300 × slower");
        directory(at, resolver);
    }

    /** Of a thousand devices 400 are moved, 200 have gone and 200 are new; 200 groups hold one more. */
    private void directory(String at, Resolver resolver) throws Exception {
        Random random = new Random(7);
        double[] taken = new double[5];
        double[] answered = new double[5];
        Resolver now = resolver;
        for (int i = 0; i < taken.length; i++) {
            Estate estate = now.estate();
            int all = estate.devices().size();
            List<Device> put = new ArrayList<>();
            Set<String> gone = new HashSet<>();
            for (int n = 0; n < 800; n++) {
                Device one = estate.devices().at(random.nextInt(all));
                if (n < 200) {
                    gone.add(one.id());
                } else if (n < 600 && !gone.contains(one.id())) {
                    put.add(one.withOu(estate.devices().at(random.nextInt(all)).ou()));
                } else {
                    put.add(Device.of("new-" + i + "-" + n, "NEW-" + n, one.ou(), List.of()));
                }
            }
            List<Group> groups = estate.groups().values().stream().limit(200).map(g -> {
                List<Target> members = new ArrayList<>(g.members());
                members.add(Target.device(put.get(put.size() - 1).id()));
                return new Group(g.id(), g.name(), members);
            }).toList();
            DirectoryChange change = DirectoryChange.none(estate.asOf().plusSeconds(60)).withDevices(put, gone).withGroups(groups, Set.of());
            Resolver before = now;
            Resolver[] next = new Resolver[1];
            taken[i] = once(() -> next[0] = before.follow(before.estate().at(change.at()).with(change)));
            answered[i] = once(() -> next[0].device(put.get(0)));
            now = next[0];
        }
        row(at + ": 1,000 changes of the directory, taken into the snapshot, and the first answer after it, the middle of 5",
                words("%.0f ms, %.0f ms", middle(taken), middle(answered)), "≤ 1 s");
    }

    private void file(Path launcher, Fleet.Size size, String reach) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("rivo-bench");
        Path json = folder.resolve("fleet.json");
        Path csv = folder.resolve("fleet.csv");
        Estate estate = Estate.of(Fleet.parts(size));
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(json))) {
            EstateWriter.write(estate, out, false);
        }
        long start = System.nanoTime();
        Process process = new ProcessBuilder(launcher.toString(), "resolve", "--stats", json.toString(), "-o", csv.toString())
                .redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException("resolve failed: " + said);
        }
        double seconds = (System.nanoTime() - start) / NANOS_OF_MILLI / 1000;
        row(words("`./rivo resolve` of a file of %.0f MB", Files.size(json) / 1e6), words("%.1f s; %s", seconds,
                said.strip().replaceFirst("^[^:]*: ", "")), reach);
        Files.delete(json);
        Files.delete(csv);
        Files.delete(folder);
    }

    private void write(Path page, boolean quick) throws IOException {
        if (quick) {
            return;
        }
        String cpu = Files.exists(Path.of("/proc/cpuinfo")) ? Files.readAllLines(Path.of("/proc/cpuinfo")).stream()
                .filter(line -> line.startsWith("model name")).findFirst().map(line -> line.split(":", 2)[1].strip())
                .orElse("unknown") : "unknown";
        List<String> lines = new ArrayList<>(List.of("# Performance", "",
                "Written by `./rivo bench` on " + LocalDate.now() + ": " + Runtime.getRuntime().availableProcessors()
                        + " processors (" + cpu + "), Java " + System.getProperty("java.version") + ", heap at most "
                        + words("%.0f MiB", Runtime.getRuntime().maxMemory() / MIB) + ".",
                "", "The estates are made by `rivo.bench.Fleet`. The floor is reading the target set of every assignment",
                "once, as a bit for each device, in the same run. Figures are the best of several tries unless a line says",
                "otherwise. The heap has been touched before, as a server's is after its first minutes. On a machine that is",
                "shared with others, runs differ by two times and more; ratios to the floor differ less.", "",
                "| work | figure | to reach |", "|---|---|---|"));
        lines.addAll(rows);
        String text = Files.exists(page) ? Files.readString(page) : "";
        int rest = text.indexOf(SECTION);
        Files.writeString(page, String.join("\n", lines) + "\n" + (rest < 0 ? "" : text.substring(rest)));
    }
}
