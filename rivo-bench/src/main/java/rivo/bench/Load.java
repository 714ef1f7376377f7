package rivo.bench;

import java.io.BufferedOutputStream;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import rivo.core.estate.Estate;
import rivo.formats.estate.EstateWriter;
import rivo.server.fleet.WriterAlone;

/**
 * Puts a server under the load of its devices, on the same machine: thousands of them in this process, each signing its requests. Beside it,
 * in the same run, an endpoint that does nothing is asked by the same driver with the same signed requests: what is said of the server is
 * how much of that is left.
 */
public final class Load {

    /** Begins what is said of the server on the page of figures. */
    static final String PART = "## The server";
    private static final int CONNECTIONS = 64;
    private static final int BUSY = 503;
    private static final int TURNS = 6;
    /** So many looks, one after the other, must have found it no quicker than before, by that much, until it counts as warm; or so many looks at all. */
    private static final int PATIENCE = 5;
    private static final double QUICKER = 1.03;
    private static final int MOST_LOOKS = 36;

    /**
     * @param devices in the estate
     * @param speaking how many of them call in and report
     * @param warm seconds before it is measured, of what the server has nearly all done before, and of the writer three times that
     * @param seconds of measuring
     */
    private record Plan(int devices, int assignments, int speaking, int warm, int seconds) {

        /** Seconds after which it is looked whether it has got any quicker. */
        int look() {
            return warm / 3;
        }
    }

    /** What one device does once; gives the status it was answered. */
    private interface Act {
        int by(LoadDevice device, RawConnection connection, int n) throws IOException;
    }

    /** @param micros of each answer, ascending */
    private record Measured(int seconds, int[] micros) {

        static final Measured NOTHING = new Measured(0, new int[0]);

        double perSecond() {
            return micros.length / (double) Math.max(1, seconds);
        }

        Measured and(Measured more) {
            int[] all = Arrays.copyOf(micros, micros.length + more.micros.length);
            System.arraycopy(more.micros, 0, all, micros.length, more.micros.length);
            Arrays.sort(all);
            return new Measured(seconds + more.seconds, all);
        }

        String percentiles() {
            return String.format(Locale.ROOT, "%,.0f a second; half within %,.1f ms, 99 in 100 within %,.1f ms", perSecond(), at(50), at(99));
        }

        private double at(int percent) {
            return micros.length == 0 ? 0 : micros[(int) ((long) (micros.length - 1) * percent / 100)] / 1000.0;
        }
    }

    private final Plan plan;
    private final Path launcher;
    private final Path folder;
    private final List<String> rows = new ArrayList<>();
    /** How many seconds each was asked until it was warm. */
    private final List<Integer> warmed = new ArrayList<>();
    private final ExecutorService threads = Executors.newFixedThreadPool(CONNECTIONS);

    private Load(Plan plan, Path launcher) throws IOException {
        this.plan = plan;
        this.launcher = launcher;
        this.folder = Files.createTempDirectory("rivo-load");
    }

    /** @param arguments the page of figures, the launcher, and {@code quick} for a small try that writes no page, or {@code looks} for what is looked at alone */
    public static void main(String[] arguments) throws Exception {
        boolean onlyLooks = arguments.length > 2 && arguments[2].equals("looks");
        boolean quick = arguments.length > 2 && arguments[2].equals("quick");
        Load load = new Load(quick ? new Plan(2_000, 200, 200, 3, 6) : new Plan(100_000, 2_000, 2_000, 30, 30), Path.of(arguments[1]));
        try {
            if (onlyLooks) {
                load.look();
            } else {
                load.run();
            }
        } finally {
            load.threads.shutdownNow();
            load.delete();
        }
        if (!quick && !onlyLooks) {
            load.write(Path.of(arguments[0]));
        }
    }

    private Path estate() throws IOException {
        Path estate = folder.resolve("estate.json.gz");
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(estate))) {
            EstateWriter.write(Estate.ofChecked(Fleet.parts(new Fleet.Size(plan.devices(), plan.assignments(), 500, 600, 100, 20, 8))), out, true);
        }
        return estate;
    }

    /** What administrators look at, while no device speaks. */
    private void look() throws Exception {
        Server server = new Server(estate());
        try {
            new Looks(server.url, server.password).measure(this::row);
        } finally {
            server.stop();
        }
    }

    private void run() throws Exception {
        Path estate = estate();
        List<LoadDevice> devices;
        Server first = new Server(estate);
        try {
            devices = enrol(first);
        } finally {
            first.stop();
        }
        long begun = System.nanoTime();
        Server server = new Server(estate);
        Process bare = null;
        try {
            try (RawConnection connection = new RawConnection(server.url)) {
                devices.get(0).callIn(connection, true);
            }
            row("start with what is known, until the first call-in is answered", String.format(Locale.ROOT, "%.1f s",
                    (System.nanoTime() - begun) / 1e9), "≤ 20 s");
            int port = freePort();
            bare = new ProcessBuilder("java", "-Xmx512m", "-cp", bareClassPath(), "rivo.bench.BareServer",
                    Integer.toString(port)).inheritIO().start();
            measure(server.url, await(URI.create("http://127.0.0.1:" + port)), devices);
            new Looks(server.url, server.password).measure(this::row);
        } finally {
            if (bare != null) {
                bare.destroy();
            }
            server.stop();
        }
        row("reports given to the writer alone, " + WriterAlone.AT_ONCE + " at once, each on disk before it is acknowledged",
                String.format(Locale.ROOT, "%,d a second", writerAlone(estate)), "≥ 15,000 a second");
    }

    /** The reports a second. */
    private long writerAlone(Path estate) throws IOException, InterruptedException {
        Process process = new ProcessBuilder("java", "-Xmx3g", "-cp", System.getProperty("java.class.path"), WriterAlone.class.getName(),
                folder.resolve("data").toString(), estate.toString(), Integer.toString(3 * plan.warm()), Integer.toString(plan.seconds()))
                .redirectError(ProcessBuilder.Redirect.INHERIT).start();
        Matcher said = Pattern.compile("reports a second: ([0-9]+)").matcher(new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
        if (process.waitFor() != 0 || !said.find()) {
            throw new IOException("the writer alone could not be measured");
        }
        return Long.parseLong(said.group(1));
    }

    private void measure(URI server, URI bare, List<LoadDevice> devices) throws Exception {
        Act callIn = (device, connection, n) -> device.callIn(connection, false);
        Act report = (device, connection, n) -> device.report(connection);
        prime(server, devices);
        Measured[] nothing = inTurn(bare, server, devices, callIn, 200, 304);
        row("the bare endpoint, 304", nothing[0].percentiles(), "the floor");
        row("call-ins with nothing new", nothing[1].percentiles() + ratio(nothing[1], nothing[0]), "≥ half of the floor");
        Measured work = measured(server, devices, (device, connection, n) -> device.callIn(connection, true), plan.warm(), plan.seconds(), 200);
        row(String.format(Locale.ROOT, "call-ins that are told their work, %.0f KB each", devices.stream().mapToInt(LoadDevice::told).average().orElse(0) / 1000),
                work.percentiles() + ratio(work, nothing[0]), "");
        Measured[] reports = inTurn(bare, server, devices, report, 200);
        row("the bare endpoint that takes a report's body", reports[0].percentiles(), "the floor of reports");
        row("reports, each on disk before it is acknowledged", reports[1].percentiles() + ratio(reports[1], reports[0]), "≥ half of that");
        Measured mixed = measured(server, devices, (device, connection, n) -> n % 10 == 0 ? device.report(connection)
                : device.callIn(connection, false), plan.warm(), plan.seconds(), 200, 304);
        row("nine call-ins to one report", mixed.percentiles(), "");
    }

    /**
     * The floor and the server, both warm, by turns: on a machine that is shared with others a minute later is another machine.
     */
    private Measured[] inTurn(URI bare, URI server, List<LoadDevice> devices, Act act, int... expected) throws Exception {
        warm(bare, devices, act, expected);
        warm(server, devices, act, expected);
        Measured[] both = {Measured.NOTHING, Measured.NOTHING};
        for (int turn = 0; turn < TURNS; turn++) {
            both[0] = both[0].and(measured(bare, devices, act, 0, plan.seconds() / TURNS, expected));
            both[1] = both[1].and(measured(server, devices, act, 0, plan.seconds() / TURNS, expected));
        }
        return both;
    }

    /** Asks until that gets no quicker: Java goes on compiling for minutes on two processors that the driver shares. */
    private void warm(URI url, List<LoadDevice> devices, Act act, int... expected) throws Exception {
        double best = 0;
        int looks = 0;
        for (int noQuicker = 0; noQuicker < PATIENCE && looks < MOST_LOOKS; looks++) {
            double now = measured(url, devices, act, 0, plan.look(), expected).perSecond();
            noQuicker = now > QUICKER * best ? 0 : noQuicker + 1;
            best = Math.max(best, now);
        }
        warmed.add(looks * plan.look());
    }

    /** Every device calls in once: what is derived and made for each of them the first time is not what is measured. */
    private void prime(URI server, List<LoadDevice> devices) throws Exception {
        List<Future<?>> asked = new ArrayList<>();
        for (int c = 0; c < CONNECTIONS; c++) {
            List<LoadDevice> own = devices.subList(devices.size() * c / CONNECTIONS, devices.size() * (c + 1) / CONNECTIONS);
            asked.add(threads.submit(() -> {
                try (RawConnection connection = new RawConnection(server)) {
                    for (LoadDevice device : own) {
                        device.callIn(connection, true);
                    }
                }
                return null;
            }));
        }
        for (Future<?> one : asked) {
            one.get();
        }
    }

    private static String ratio(Measured measured, Measured floor) {
        return String.format(Locale.ROOT, "; %.2f of the floor", measured.perSecond() / floor.perSecond());
    }

    private Measured measured(URI url, List<LoadDevice> devices, Act act, int warm, int seconds, int... expected) throws Exception {
        long warmUntil = System.nanoTime() + warm * 1_000_000_000L;
        long end = warmUntil + seconds * 1_000_000_000L;
        List<Future<int[]>> asked = new ArrayList<>();
        for (int c = 0; c < CONNECTIONS; c++) {
            List<LoadDevice> own = devices.subList(devices.size() * c / CONNECTIONS, devices.size() * (c + 1) / CONNECTIONS);
            asked.add(threads.submit(() -> ask(url, own, act, warmUntil, end, expected)));
        }
        Measured all = new Measured(seconds, new int[0]);
        for (Future<int[]> one : asked) {
            all = all.and(new Measured(0, one.get()));
        }
        return all;
    }

    private static int[] ask(URI url, List<LoadDevice> devices, Act act, long warmUntil, long end, int... expected) throws IOException {
        int[] micros = new int[1 << 18];
        int count = 0;
        try (RawConnection connection = new RawConnection(url)) {
            for (int n = 0;; n++) {
                long begun = System.nanoTime();
                if (begun >= end) {
                    return Arrays.copyOf(micros, count);
                }
                int status = act.by(devices.get(n % devices.size()), connection, n);
                if (status == BUSY) {
                    // Asked to come again; what is not taken is not counted.
                    continue;
                }
                if (Arrays.stream(expected).noneMatch(one -> one == status)) {
                    throw new IOException("answered " + status);
                }
                if (begun >= warmUntil && count < micros.length) {
                    micros[count++] = (int) ((System.nanoTime() - begun) / 1000);
                }
            }
        }
    }

    private List<LoadDevice> enrol(Server server) throws Exception {
        HttpClient http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        send(http, server, "GET", "/api/session", "");
        send(http, server, "POST", "/api/session", "{\"account\":\"administrator\",\"password\":\"" + server.password + "\"}");
        List<LoadDevice> devices = new ArrayList<>();
        try (RawConnection connection = new RawConnection(server.url)) {
            for (int offset = 0; devices.size() < plan.speaking(); offset += 500) {
                Matcher ids = Pattern.compile("\"id\":\"(d[0-9]+)\"").matcher(send(http, server, "GET", "/api/devices?limit=500&offset=" + offset, ""));
                while (ids.find() && devices.size() < plan.speaking()) {
                    String told = send(http, server, "POST", "/api/devices/" + ids.group(1) + "/token", "");
                    Matcher token = Pattern.compile("\"token\":\"([^\"]+)\"").matcher(told);
                    if (!token.find()) {
                        throw new IOException("no token: " + told);
                    }
                    devices.add(LoadDevice.enrolled(connection, ids.group(1), token.group(1)));
                }
            }
        }
        return devices;
    }

    private static String send(HttpClient http, Server server, String method, String path, String body) throws Exception {
        String token = ((CookieManager) http.cookieHandler().orElseThrow()).getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN")).map(java.net.HttpCookie::getValue).findFirst().orElse("");
        HttpResponse<String> answer = http.send(HttpRequest.newBuilder(server.url.resolve(path)).header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token).method(method, HttpRequest.BodyPublishers.ofString(body)).build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 400 && !path.equals("/api/session")) {
            throw new IOException(method + " " + path + " was answered " + answer.statusCode() + " " + answer.body());
        }
        return answer.body();
    }

    /** The server as it is started by whoever runs it. */
    private final class Server {
        private final Process process;
        private final URI url;
        private final String password;

        Server(Path estate) throws IOException {
            process = new ProcessBuilder(launcher.toString(), "serve", "--estate", estate.toString(), "--data", folder.resolve("data").toString(),
                    "--port", "0", "--memory", "3g", "--reports-a-minute", "1000000", "--report-mib-a-day", "1000000")
                    .redirectError(ProcessBuilder.Redirect.INHERIT).start();
            BufferedReader said = process.inputReader();
            String found = null;
            String secret = null;
            for (String line = said.readLine(); line != null && secret == null; line = said.readLine()) {
                Matcher at = Pattern.compile("Rivo runs at (http://\\S+?)/,").matcher(line);
                Matcher as = Pattern.compile("password (\\S+)").matcher(line);
                found = at.find() ? at.group(1) : found;
                secret = as.find() ? as.group(1) : null;
                if (secret != null) {
                    break;
                }
            }
            if (found == null || secret == null) {
                throw new IOException("the server did not start");
            }
            url = URI.create(found);
            password = secret;
            Thread drain = new Thread(() -> said.lines().forEach(line -> {
            }));
            drain.setDaemon(true);
            drain.start();
        }

        void stop() throws InterruptedException {
            process.destroy();
            process.waitFor();
        }
    }

    /** Without what would guard the endpoint, or hold it up. */
    private static String bareClassPath() {
        return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .filter(jar -> !jar.matches(".*/(rivo-app|spring-security|spring-boot-security|spring-boot-actuator|springdoc|swagger|"
                        + "flyway|spring-boot-flyway|spring-boot-jdbc|spring-jdbc|HikariCP|h2-)[^/]*"))
                .collect(Collectors.joining(File.pathSeparator));
    }

    private static URI await(URI server) throws InterruptedException {
        for (int i = 0; i < 300; i++) {
            try {
                new RawConnection(server).close();
                return server;
            } catch (IOException e) {
                Thread.sleep(100);
            }
        }
        throw new IllegalStateException("the bare endpoint did not start");
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    private void row(String work, String figure, String reach) {
        System.out.println(work + ": " + figure + (reach.isEmpty() ? "" : " (" + reach + ")"));
        rows.add("| " + work + " | " + figure + " | " + reach + " |");
    }

    /** In place of what stood there of the server. */
    private void write(Path page) throws IOException {
        String text = Files.readString(page);
        int from = text.indexOf(PART);
        String before = from < 0 ? text.stripTrailing() + "\n\n" : text.substring(0, from);
        Files.writeString(page, before + PART + "\nWritten by `./rivo load` on " + LocalDate.now() + ": " + plan.devices() + " devices, "
                + plan.assignments() + " assignments, 500 titles; " + plan.speaking() + " of the devices speak, over " + CONNECTIONS
                + " connections, from the same machine ("
                + Runtime.getRuntime().availableProcessors() + " processors, which the driver shares). What has a floor, and the floor, was asked until it got no quicker for "
                + PATIENCE * plan.look() + " s: " + warmed.stream().map(String::valueOf).collect(Collectors.joining(", ")) + " s in the order of the lines. The writer alone was warm for "
                + 3 * plan.warm() + " s, the others for " + plan.warm() + " s; each was measured for " + plan.seconds()
                + " s, what has a floor by turns with it. Ratios are of the same run.\n\n| work | figure | to reach |\n|---|---|---|\n"
                + String.join("\n", rows) + "\n");
    }

    private void delete() throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(one);
            }
        }
    }
}
