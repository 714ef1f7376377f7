package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ResponseEntity;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.web.context.request.ServletWebRequest;
import org.springframework.web.servlet.NoHandlerFoundException;
import rivo.server.estate.ChangeWriter;
import rivo.server.log.RefusalLog;

/** The page of the front end, and who is given it where there is nothing else. */
class FrontEndTest {

    private static final Pattern NONCE = Pattern.compile("'nonce-([^']+)'");

    @Test
    void eachPageHasItsOwnNonceAndNothingKeepsIt() throws IOException {
        FrontEnd frontEnd = new FrontEnd();
        MockHttpServletResponse one = written(frontEnd, 200);
        MockHttpServletResponse other = written(frontEnd, 404);
        assertThat(one.getStatus()).isEqualTo(200);
        assertThat(other.getStatus()).isEqualTo(404);
        assertThat(one.getContentType()).isEqualTo("text/html;charset=UTF-8");
        assertThat(one.getHeader("Cache-Control")).isEqualTo("no-store");
        assertThat(nonce(one)).isNotEqualTo(nonce(other));
        assertThat(one.getContentAsString()).contains(nonce(one)).contains("<script");
    }

    private static MockHttpServletResponse written(FrontEnd frontEnd, int status) throws IOException {
        MockHttpServletResponse response = new MockHttpServletResponse();
        frontEnd.write(response, status);
        return response;
    }

    private static String nonce(MockHttpServletResponse response) {
        Matcher found = NONCE.matcher(response.getHeader("Content-Security-Policy"));
        assertThat(found.find()).isTrue();
        return found.group(1);
    }

    @ParameterizedTest
    @CsvSource({"GET, /nowhere, text/html, true", "POST, /nowhere, text/html, false", "GET, /nowhere, application/json, false",
        "GET, /nowhere, , false", "GET, /api/nowhere, text/html, false", "GET, /device/v2/nowhere, text/html, false", "GET, /apinowhere, text/html, true"})
    void whoeverAsksForAPageThatDoesNotExistGetsTheFrontEndAndAProgramAnAnswer(String method, String path, String accept, boolean page) throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest(method, path);
        if (accept != null) {
            request.addHeader("Accept", accept);
        }
        MockHttpServletResponse response = new MockHttpServletResponse();
        ResponseEntity<Object> answer = new Problems(mock(RefusalLog.class), new FrontEnd(), mock(ChangeWriter.class)).handleNoHandlerFoundException(new NoHandlerFoundException(method, path,
                new HttpHeaders()), new HttpHeaders(), HttpStatusCode.valueOf(404), new ServletWebRequest(request, response));
        if (page) {
            assertThat(answer).isNull();
            assertThat(response.getStatus()).isEqualTo(HttpStatus.NOT_FOUND.value());
            assertThat(response.getContentAsString()).contains("<html");
        } else {
            assertThat(answer).isNotNull();
            assertThat(answer.getStatusCode()).isEqualTo(HttpStatus.NOT_FOUND);
            assertThat(response.getContentAsString()).isEmpty();
        }
    }
}
