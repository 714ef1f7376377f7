package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;

import java.io.EOFException;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.mock.web.MockHttpServletRequest;
import rivo.server.estate.ChangeWriter;
import rivo.server.log.RefusalLog;

class ProblemsTest {

    private final ChangeWriter writer = mock(ChangeWriter.class);
    private final RefusalLog log = mock(RefusalLog.class);
    private final Problems problems = new Problems(log, mock(FrontEnd.class), writer);
    private final MockHttpServletRequest request = new MockHttpServletRequest("GET", "/api/titles");

    private static String said(ResponseEntity<ProblemDetail> answer) {
        return String.valueOf(answer.getBody());
    }

    @Test
    void whatWentWrongWithinIsNotSaid() {
        for (ResponseEntity<ProblemDetail> answer : List.of(problems.bug(new IllegalStateException("/var/lib/rivo: secret"), request),
                problems.error(new AssertionError("secret"), request),
                problems.brokenOff(new IOException("/var/lib/rivo: secret"), request))) {
            assertThat(answer.getStatusCode().value()).isEqualTo(500);
            assertThat(said(answer)).doesNotContain("secret", "Exception", "/var");
        }
        verifyNoInteractions(writer);
    }

    @Test
    void aMemoryThatRanOutStopsChanges() {
        assertThat(problems.error(new OutOfMemoryError("made up"), request).getStatusCode().value()).isEqualTo(503);
        verify(writer).memoryRanOut();
    }

    @Test
    void whoDoesNotFinishIsNoFaultOfOurs() {
        for (IOException gone : new IOException[] {new SocketTimeoutException("x"), new EOFException("x"), new IOException(new EOFException())}) {
            assertThat(problems.brokenOff(gone, request).getStatusCode().value()).isEqualTo(408);
        }
        assertThat(problems.brokenOff(new BoundedRequest.TooLarge(), request).getStatusCode().value()).isEqualTo(413);
    }

    @Test
    void aRefusalIsLoggedByItsCodeWithoutTheQuery() {
        request.setQueryString("password=heron");
        problems.api(ApiException.refused(HttpStatus.FORBIDDEN, "not-allowed", "No."), request);
        verify(log).refused("not-allowed", "GET /api/titles from 127.0.0.1: No.");
        assertThat(said(problems.api(ApiException.tooMany("wait", "Wait.", 7), request))).contains("Wait.");
        assertThat(problems.api(ApiException.tooMany("wait", "Wait.", 7), request).getHeaders().getFirst("Retry-After")).isEqualTo("7");
    }
}
