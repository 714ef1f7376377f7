package rivo.bench;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Asks a server what administrators look at, one request after the other, and how long each answer takes. */
final class Looks {

    private static final int WARM = 5;
    private static final int TIMES = 21;
    private static final int REFUSED = 400;

    /** Told each figure. */
    interface Told {
        void row(String work, String figure, String reach);
    }

    private final HttpClient http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    private final URI url;

    Looks(URI url, String password) throws IOException, InterruptedException {
        this.url = url;
        send("GET", "/api/session", "");
        send("POST", "/api/session", "{\"account\":\"administrator\",\"password\":\"" + password + "\"}");
    }

    void measure(Told told) throws IOException, InterruptedException {
        String title = first("/api/titles", "\"id\":\"([^\"]+)\"");
        String group = first("/api/audience-list", "\"target\":\"(group:[^\"]+)\"");
        String ou = first("/api/audience-list", "\"target\":\"(ou:[^\"]+)\"");
        String device = first("/api/devices?limit=1", "\"id\":\"(d[0-9]+)\"");
        took(told, "a title's map", "GET", n -> "/api/reach/" + title, n -> "", 150);
        took(told, "how a title stands, state by state", "GET", n -> "/api/titles/" + title + "/states", n -> "", 150);
        took(told, "what needs attention today", "GET", n -> "/api/today", n -> "", 50);
        took(told, "the rehearsal of an assignment to a group", "POST", n -> "/api/assignments/trial", n -> assignment(title, group, n, false), 300);
        took(told, "the same to everyone, binding", "POST", n -> "/api/assignments/trial", n -> assignment(title, ou, n, true), 1000);
        took(told, "a keystroke in a rule", "POST", n -> "/api/rules/trial", n -> "{\"rule\":\"name co \\\"" + n + "\\\" and software[name sw \\\"s" + n
                + "\\\"]\",\"collection\":\"a new one\"}", 200);
        took(told, "a group's first hundred devices with their chains", "GET", n -> "/api/audience/devices?target=" + encoded(group), n -> "", 100);
        took(told, "what a group receives of every title", "GET", n -> "/api/audience/titles?target=" + encoded(group), n -> "", 0);
        took(told, "a device's page", "GET", n -> "/api/devices/" + device, n -> "", 50);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    /** Another one each time, so that nothing is answered of what was asked before. */
    private static String assignment(String title, String target, int n, boolean binding) {
        return "{\"id\":\"tried-" + n + "\",\"revision\":0,\"document\":{\"id\":\"tried-" + n + "\",\"subject\":\"title:" + title
                + "\",\"intent\":\"required\",\"follows\":\"device\",\"include\":[\"" + target + "\"],\"binding\":" + binding + "}}";
    }

    private interface Text {
        String of(int n);
    }

    private void took(Told told, String work, String method, Text path, Text body, int reach) throws IOException, InterruptedException {
        double[] millis = new double[TIMES];
        for (int n = -WARM; n < TIMES; n++) {
            long begun = System.nanoTime();
            send(method, path.of(n), body.of(n + WARM));
            if (n >= 0) {
                millis[n] = (System.nanoTime() - begun) / 1e6;
            }
        }
        Arrays.sort(millis);
        told.row(work, String.format(Locale.ROOT, "half within %,.0f ms, the slowest of %d %,.0f ms", millis[TIMES / 2], TIMES, millis[TIMES - 1]),
                reach == 0 ? "" : "≤ " + reach + " ms");
    }

    private String first(String path, String pattern) throws IOException, InterruptedException {
        Matcher found = Pattern.compile(pattern).matcher(send("GET", path, ""));
        if (!found.find()) {
            throw new IOException("nothing like " + pattern + " at " + path);
        }
        return found.group(1);
    }

    private String send(String method, String path, String body) throws IOException, InterruptedException {
        String token = ((CookieManager) http.cookieHandler().orElseThrow()).getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN")).map(HttpCookie::getValue).findFirst().orElse("");
        HttpResponse<String> answer = http.send(HttpRequest.newBuilder(url.resolve(path)).header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token).method(method, HttpRequest.BodyPublishers.ofString(body)).build(), HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= REFUSED && !path.equals("/api/session")) {
            throw new IOException(method + " " + path + " was answered " + answer.statusCode() + " " + answer.body());
        }
        return answer.body();
    }
}
