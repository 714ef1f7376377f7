package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.RequestDispatcher;
import java.io.IOException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the container could not answer by itself. */
class ErrorAnswersTest {

    @ParameterizedTest
    @CsvSource({"500, 500, fault, Rivo made a mistake", "503, 503, fault, Rivo made a mistake", "499, 499, bad-request, The request was refused",
        "404, 404, unknown-address, Not Found", "400, 400, bad-request, Bad Request", ", 404, unknown-address, Not Found"})
    void isSaidWithoutAWordOfWhatIsInside(Integer told, int status, String code, String words) throws IOException {
        MockHttpServletRequest request = new MockHttpServletRequest("GET", "/error");
        request.setAttribute(RequestDispatcher.ERROR_STATUS_CODE, told);
        request.setAttribute(RequestDispatcher.ERROR_EXCEPTION, new IllegalStateException("a secret of the inside"));
        MockHttpServletResponse response = new MockHttpServletResponse();
        new ErrorAnswers().error(request, response);
        assertThat(response.getStatus()).isEqualTo(status);
        JsonNode problem = new JsonMapper().readTree(response.getContentAsString());
        assertThat(problem.path("code").asString()).isEqualTo(code);
        assertThat(problem.path("status").asInt()).isEqualTo(status);
        assertThat(problem.path("detail").asString()).startsWith(words).doesNotContain("secret");
    }
}
