package rivo.server.fleet;

import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.WriteListener;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AnswerSignature;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Signature;

/**
 * An answer that is held back until it is whole, then signed with a digest of its body. Content is not held back: it is signed
 * without a digest, since a device knows its SHA-256 from its work. Nothing is signed until {@link #signFor} says for whom.
 */
final class DeviceAnswer extends HttpServletResponseWrapper {

    private static final String SIGNER = DeviceAnswer.class.getName();
    private static final String CONTENT = DeviceAnswer.class.getName() + ".content";
    private static final String DIGEST = DeviceAnswer.class.getName() + ".digest";

    /** @param request the value of the signature that is answered */
    private record Signer(KeyId keyId, MessageKey key, String request) {
    }

    private final HttpServletRequest asked;
    private final HttpServletResponse response;
    private final Clock clock;
    private final ByteArrayOutputStream held = new ByteArrayOutputStream();
    private @Nullable ServletOutputStream out;
    private @Nullable PrintWriter writer;
    private boolean passedOn;

    DeviceAnswer(HttpServletRequest asked, HttpServletResponse response, Clock clock) {
        super(response);
        this.asked = asked;
        this.response = response;
        this.clock = clock;
    }

    /** From here on it is certain who asked: what is answered to this request is signed for them. */
    static void signFor(HttpServletRequest request, KeyId keyId, MessageKey key, SignedRequest signed) {
        request.setAttribute(SIGNER, new Signer(keyId, key, signed.value()));
    }

    /** What follows is content. */
    static void isContent(HttpServletRequest request) {
        request.setAttribute(CONTENT, true);
    }

    /** The digest of the body, where all goes well: a work may be large, and need not be looked through twice. */
    static void hasDigest(HttpServletRequest request, String digest) {
        request.setAttribute(DIGEST, digest);
    }

    @Override
    public ServletOutputStream getOutputStream() throws IOException {
        if (asked.getAttribute(CONTENT) != null && getStatus() < 300) {
            passedOn = true;
            sign(null);
            return response.getOutputStream();
        }
        if (out == null) {
            out = new Holding(held);
        }
        return out;
    }

    @Override
    public PrintWriter getWriter() {
        if (writer == null) {
            writer = new PrintWriter(new OutputStreamWriter(held, StandardCharsets.UTF_8), false);
        }
        return writer;
    }

    @Override
    public void flushBuffer() throws IOException {
        if (passedOn) {
            response.flushBuffer();
        }
    }

    /** Its length is told when it is whole. */
    @Override
    public void setContentLength(int length) {
        if (passedOn || asked.getAttribute(CONTENT) != null) {
            super.setContentLength(length);
        }
    }

    @Override
    public void setContentLengthLong(long length) {
        if (passedOn || asked.getAttribute(CONTENT) != null) {
            super.setContentLengthLong(length);
        }
    }

    @Override
    public void resetBuffer() {
        super.resetBuffer();
        held.reset();
    }

    /** Signs and sends what has been held back. */
    void finish() throws IOException {
        if (passedOn || response.isCommitted()) {
            return;
        }
        if (writer != null) {
            writer.flush();
        }
        byte[] body = held.toByteArray();
        sign(body.length == 0 ? null : digest(body));
        if (body.length > 0) {
            response.setContentLength(body.length);
            response.getOutputStream().write(body);
        }
    }

    private String digest(byte[] body) {
        return getStatus() == HttpServletResponse.SC_OK && asked.getAttribute(DIGEST) instanceof String known ? known : Signature.digest(body);
    }

    private void sign(@Nullable String digest) {
        if (!(asked.getAttribute(SIGNER) instanceof Signer signer)) {
            return;
        }
        AnswerSignature.Answer answer = new AnswerSignature.Answer(getStatus(), getHeader("ETag"), getHeader("Cache-Control"),
                digest, signer.request());
        AnswerSignature signature = AnswerSignature.sign(signer.key(), signer.keyId(), clock.instant(), answer);
        response.setHeader("Signature-Input", signature.inputHeader(answer));
        response.setHeader("Signature", signature.valueHeader());
        if (digest != null) {
            response.setHeader("Content-Digest", digest);
        }
    }

    private static final class Holding extends ServletOutputStream {

        private final ByteArrayOutputStream held;

        Holding(ByteArrayOutputStream held) {
            this.held = held;
        }

        @Override
        public void write(int b) {
            held.write(b);
        }

        @Override
        public void write(byte[] bytes, int from, int length) {
            held.write(bytes, from, length);
        }

        @Override
        public boolean isReady() {
            return true;
        }

        @Override
        public void setWriteListener(@Nullable WriteListener listener) {
            throw new IllegalStateException("answers to devices are written at once");
        }
    }
}
