package rivo.devices.fleet;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.Signature;
import tools.jackson.databind.json.JsonMapper;

/** The device protocol, seen from a device. Shared by all simulated devices; safe for any number of threads. */
final class ServerConnection {

    private static final Duration PATIENCE = Duration.ofSeconds(20);
    private static final String JSON = "application/json";

    /** An answer that is not a success. */
    static final class RefusedByServer extends IOException {
        private final int status;

        RefusedByServer(int status, String body) {
            super("the server answered " + status + ": " + body);
            this.status = status;
        }

        int status() {
            return status;
        }
    }

    private final URI server;
    private final JsonMapper json = new JsonMapper();
    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(PATIENCE).build();

    ServerConnection(URI server) {
        this.server = server;
    }

    Enrolled enrol(String token, String nonce) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(server.resolve("/device/v1/enrolments")).timeout(PATIENCE)
                .header("Content-Type", JSON)
                .POST(HttpRequest.BodyPublishers.ofByteArray(json.writeValueAsBytes(new Enrolment(token, nonce))))
                .build();
        return json.readValue(send(request, 201).body(), Enrolled.class);
    }

    /** Calls in: 200 with work, or 304 when there is nothing new. */
    HttpResponse<byte[]> callIn(DeviceState device, @Nullable String etag, Duration next)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = signed(device, "GET", "/device/v1/devices/" + device.id() + "/work", null)
                .header("Rivo-Next-Call-In", Long.toString(next.toSeconds()));
        if (etag != null) {
            request.header("If-None-Match", etag);
        }
        return send(request.GET().build(), 200, 304);
    }

    /** A part of a content from the server itself; both ends inclusive. */
    byte[] part(DeviceState device, String sha256, long from, long to) throws IOException, InterruptedException {
        return send(signed(device, "GET", "/device/v1/content/" + sha256, null).header("Range", range(from, to)).GET()
                .build(), 206).body();
    }

    /** A part of a content from a mirror; both ends inclusive. Nothing is signed: who knows the hash may have it. */
    byte[] part(String mirror, String sha256, long from, long to) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(URI.create(mirror + "/content/" + sha256)).timeout(PATIENCE)
                .header("Range", range(from, to)).GET().build();
        HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        if (response.statusCode() != 206) {
            throw new IOException("it answered " + response.statusCode());
        }
        return response.body();
    }

    private static String range(long from, long to) {
        return "bytes=" + from + "-" + to;
    }

    ReportAnswer report(DeviceState device, Report report) throws IOException, InterruptedException {
        byte[] body = json.writeValueAsBytes(report);
        HttpRequest request = signed(device, "POST", "/device/v1/devices/" + device.id() + "/reports", body)
                .header("Content-Type", JSON).POST(HttpRequest.BodyPublishers.ofByteArray(body)).build();
        return json.readValue(send(request, 200).body(), ReportAnswer.class);
    }

    <T> T read(byte[] body, Class<T> type) {
        return json.readValue(body, type);
    }

    private HttpRequest.Builder signed(DeviceState device, String method, String path, byte @Nullable [] body) {
        byte[] key = Base64.getDecoder().decode(Objects.requireNonNull(device.key()));
        String digest = body == null ? null : Signature.digest(body);
        Signature signature = Signature.sign(key, Objects.requireNonNull(device.id()), Instant.now(), method, path,
                digest);
        HttpRequest.Builder request = HttpRequest.newBuilder(server.resolve(path)).timeout(PATIENCE)
                .header("Signature-Input", signature.inputHeader(body != null))
                .header("Signature", signature.valueHeader());
        return digest == null ? request : request.header("Content-Digest", digest);
    }

    private HttpResponse<byte[]> send(HttpRequest request, int... expected) throws IOException, InterruptedException {
        HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        for (int status : expected) {
            if (response.statusCode() == status) {
                return response;
            }
        }
        throw new RefusedByServer(response.statusCode(), new String(response.body(),
                java.nio.charset.StandardCharsets.UTF_8));
    }
}
