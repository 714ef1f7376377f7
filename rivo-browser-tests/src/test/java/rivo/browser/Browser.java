package rivo.browser;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.google.gson.JsonObject;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.Cookie;
import com.microsoft.playwright.options.ReducedMotion;
import java.net.URI;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * One page in a browser that knows nothing yet: no session, nothing stored. All tests of a JVM share one process of Debian's Chromium, the build
 * that has no windows of its own, which ends with it; they share nothing else. Whoever uses it has asked their system for less motion, which
 * spares waiting for what slides in.
 */
final class Browser implements AutoCloseable {

    private static final List<String> FLAGS = List.of("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
            "--disable-background-networking", "--disable-component-update", "--disable-sync");
    private static final Set<String> SERIOUS = Set.of("serious", "critical");
    private static final int WIDTH = 1280;
    private static final int HEIGHT = 800;

    private static final com.microsoft.playwright.Browser CHROMIUM = Playwright.create(new Playwright.CreateOptions()
            .setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1"))).chromium().launch(new BrowserType.LaunchOptions()
            .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell")).setArgs(FLAGS));

    private final BrowserContext context;
    private final Page page;
    private final List<String> complaints = new ArrayList<>();

    Browser(URI url) {
        context = CHROMIUM.newContext(new com.microsoft.playwright.Browser.NewContextOptions()
                .setViewportSize(WIDTH, HEIGHT).setReducedMotion(ReducedMotion.REDUCE).setBaseURL(url.toString()));
        page = context.newPage();
        page.onPageError(complaints::add);
        page.onConsoleMessage(message -> {
            // The first answer without a session is a 401 by design.
            if ("error".equals(message.type()) && !message.text().contains("401")) {
                complaints.add(message.text() + " " + message.location());
            }
        });
    }

    Page page() {
        return page;
    }

    /** From now on every answer of the server comes that much later. */
    void answersAfter(int milliseconds) {
        JsonObject slow = new JsonObject();
        slow.addProperty("offline", false);
        slow.addProperty("latency", milliseconds);
        slow.addProperty("downloadThroughput", -1);
        slow.addProperty("uploadThroughput", -1);
        context.newCDPSession(page).send("Network.emulateNetworkConditions", slow);
    }

    /** What the page complained of so far: uncaught errors, and what the content policy blocked. */
    List<String> complaints() {
        return List.copyOf(complaints);
    }

    void signIn(String account, String password) {
        page.navigate("/");
        page.getByLabel("Account name").fill(account);
        page.getByLabel("Password").fill(password);
        page.keyboard().press("Enter");
        page.waitForSelector("nav[aria-label=Places]");
    }

    List<Cookie> cookies() {
        return context.cookies();
    }

    void know(List<Cookie> cookies) {
        context.addCookies(cookies);
    }

    /** The serious faults that axe finds on the page as it stands; of the dark theme's only what another theme can change, the contrast. */
    List<String> faults(String theme) {
        // What is being replaced is pale for a moment, and what is still fading in, too.
        page.waitForFunction("() => document.querySelector('[aria-busy=true]') === null");
        page.evaluate("() => Promise.allSettled(document.getAnimations().filter(one => one.effect.getComputedTiming().iterations !== Infinity)"
                + ".map(one => one.finished)).then(() => undefined)");
        AxeRunOptions violationsAlone = new AxeRunOptions();
        violationsAlone.setResultTypes(List.of("violations"));
        AxeBuilder axe = new AxeBuilder(page).options(violationsAlone).setLegacyMode(true);
        if ("dark".equals(theme)) {
            axe.withRules(List.of("color-contrast"));
        }
        return axe.analyze().getViolations().stream().filter(rule -> SERIOUS.contains(rule.getImpact()))
                .map(Browser::words).toList();
    }

    private static String words(Rule rule) {
        return rule.getId() + ": " + rule.getHelp() + " " + rule.getNodes().stream().limit(4)
                .map(node -> node.getHtml() + " " + node.getFailureSummary()).toList();
    }

    @Override
    public void close() {
        context.close();
    }
}
