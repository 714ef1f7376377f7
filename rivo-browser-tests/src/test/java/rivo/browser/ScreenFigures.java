package rivo.browser;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.bench.Fleet;
import rivo.core.estate.Estate;
import rivo.formats.estate.EstateWriter;

/**
 * Measures what the screens cost, in the browser and at the server, and prints it: {@code ./rivo load screens}. No test, as it would pass or
 * fail by what else the machine does.
 */
class ScreenFigures {

    private static final int DEVICES = 100_000;
    private static final int OUS = 5_000;
    private static final int STEPS = 40;
    private static final int VIEWERS = 10;
    private static final int TURNS = 5;
    private static final int TURN_MILLIS = 20_000;
    private static final int SETTLED_MILLIS = 5_000;
    private static final int CALM_MILLIS = 180_000;
    /** Counts frames, and the longest pause between two of them, from one call to the next. */
    private static final String FRAMES = "() => { const seen = { n: 0, longest: 0, begun: performance.now() }; let last = seen.begun;"
            + " const tick = now => { seen.n++; seen.longest = Math.max(seen.longest, now - last); last = now; requestAnimationFrame(tick) };"
            + " requestAnimationFrame(tick); window.frames_ = seen }";

    private static final String YARDSTICK = "() => { let x = 1; const all = Array.from({ length: 200000 }, () => x = (x * 48271) % 2147483647);"
            + " const begun = performance.now(); all.sort((a, b) => a - b); return performance.now() - begun }";

    @TempDir
    Path folder;

    @Test
    void mapAndList() throws IOException {
        Path estate = folder.resolve("estate.json.gz");
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(estate))) {
            EstateWriter.write(Estate.ofChecked(Fleet.parts(new Fleet.Size(DEVICES, 2_000, 500, 600, 100, 20, 8, Fleet.Catalogue.FAMILIES, OUS))),
                    out, true);
        }
        try (Demo server = Demo.serve(folder.resolve("data"), estate); Browser browser = new Browser(server.url())) {
            browser.signIn(server.account(), server.password());
            Page page = browser.page();
            Scripts scripts = new Scripts(page);
            map(page, scripts);
            yardstick(page);
            list(page, scripts);
            yardstick(page);
        }
    }

    private static void map(Page page, Scripts scripts) {
        page.navigate("/reach");
        Object titles = page.evaluate("() => fetch('/api/titles').then(a => a.json()).then(all => all.slice(0, 12).map(one => one.id))");
        List<Double> drawn = new ArrayList<>();
        for (Object title : (List<?>) titles) {
            // By the address, as the application itself goes on to another title.
            scripts.begin();
            page.evaluate("to => { history.pushState(null, '', to); dispatchEvent(new PopStateEvent('popstate')) }", "/reach/" + title);
            page.getByRole(AriaRole.TREE).first().waitFor();
            page.waitForTimeout(1500);
            drawn.add(scripts.millis());
        }
        row("a map of " + OUS + " OUs, drawn: script", drawn.subList(2, drawn.size()), 100);
        page.getByRole(AriaRole.TREEITEM).first().focus();
        page.evaluate(FRAMES);
        List<Double> steps = new ArrayList<>();
        String[] keys = {"ArrowDown", "ArrowRight", "ArrowDown", "ArrowRight", "ArrowDown", "ArrowLeft"};
        for (int i = 0; i < STEPS * 2; i++) {
            scripts.begin();
            page.keyboard().press(keys[i % keys.length]);
            page.waitForTimeout(40);
            steps.add(scripts.millis());
        }
        row("the same, walked by keys: script a step", steps, 16);
        Object seen = page.evaluate("() => ({ fps: frames_.n * 1000 / (performance.now() - frames_.begun), longest: frames_.longest })");
        System.out.println("the same, walked by keys: frames a second, and the longest pause in ms: " + seen + " (60)");
    }

    private static void list(Page page, Scripts scripts) {
        page.navigate("/fleet");
        page.getByRole(AriaRole.GRID).or(page.getByRole(AriaRole.TABLE)).first().waitFor();
        page.waitForTimeout(2000);
        page.mouse().move(640, 500);
        List<Double> scrolled = new ArrayList<>();
        for (int i = 0; i < STEPS; i++) {
            scripts.begin();
            page.mouse().wheel(0, i % 8 == 7 ? 40_000 : 900);
            page.waitForTimeout(400);
            scrolled.add(scripts.millis());
        }
        row("a list of " + DEVICES + " devices, scrolled: script a step", scrolled, 50);
        List<Double> typed = new ArrayList<>();
        page.getByLabel("Narrow the list by name, person or OU").focus();
        for (char key : "d77 part 1 ou person 99".toCharArray()) {
            scripts.begin();
            page.keyboard().type(String.valueOf(key));
            page.waitForTimeout(700);
            typed.add(scripts.millis());
        }
        row("the same, narrowed: script a letter", typed, 50);
    }

    /** By turns, since the devices are at work now more and now less. */
    @Test
    void viewers() throws IOException {
        try (Demo demo = Demo.start(folder.resolve("demo"), "--fresh")) {
            sleep(CALM_MILLIS);
            List<Browser> browsers = new ArrayList<>();
            for (int i = 0; i < VIEWERS; i++) {
                Browser browser = new Browser(demo.url());
                browser.signIn(demo.account(), demo.password());
                browsers.add(browser);
            }
            double alone = 0;
            double viewed = 0;
            for (int turn = 0; turn < TURNS; turn++) {
                browsers.forEach(browser -> browser.page().navigate("about:blank"));
                sleep(SETTLED_MILLIS);
                alone += demo.processors(() -> sleep(TURN_MILLIS)) / TURNS;
                browsers.forEach(browser -> browser.page().navigate("/fleet"));
                sleep(SETTLED_MILLIS);
                viewed += demo.processors(() -> sleep(TURN_MILLIS)) / TURNS;
            }
            browsers.forEach(Browser::close);
            System.out.printf(Locale.ROOT, "300 lively devices in the fleet of the demo: the server takes %.1f %% of a processor alone, with them in the same "
                    + "process, and %.1f %% with %d viewers of the list (≤ 5 %% more)%n", alone * 100, viewed * 100, VIEWERS);
        }
    }

    /** Says how fast the machine is just then: others may be at work on it, and what is read beside this can be compared from run to run. */
    private static void yardstick(Page page) {
        List<Double> tries = new ArrayList<>();
        for (int i = 0; i < STEPS; i++) {
            tries.add(((Number) page.evaluate(YARDSTICK)).doubleValue());
            page.waitForTimeout(50);
        }
        List<Double> sorted = tries.stream().sorted().toList();
        System.out.printf(Locale.ROOT, "the yardstick, 200,000 numbers sorted by script: half within %.1f ms%n", sorted.get(STEPS / 2));
    }

    private static void row(String work, List<Double> millis, int reach) {
        List<Double> sorted = millis.stream().sorted().toList();
        System.out.printf(Locale.ROOT, "%s: half within %.1f ms, the longest of %d %.1f ms (≤ %d ms)%n", work, sorted.get(sorted.size() / 2),
                sorted.size(), sorted.get(sorted.size() - 1), reach);
    }

    private static void sleep(int millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** How long a page has been running script, as Chromium itself counts it. */
    private static final class Scripts {
        private final CDPSession session;
        private double begun;

        Scripts(Page page) {
            session = page.context().newCDPSession(page);
            session.send("Performance.enable");
        }

        void begin() {
            begun = seconds();
        }

        double millis() {
            return (seconds() - begun) * 1000;
        }

        private double seconds() {
            for (JsonElement one : session.send("Performance.getMetrics").getAsJsonArray("metrics")) {
                JsonObject metric = one.getAsJsonObject();
                if (metric.get("name").getAsString().equals("ScriptDuration")) {
                    return metric.get("value").getAsDouble();
                }
            }
            throw new IllegalStateException("the browser does not count");
        }
    }
}
