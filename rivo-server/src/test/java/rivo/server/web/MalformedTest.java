package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.http.HttpMethod;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.mock.http.MockHttpInputMessage;
import org.springframework.web.HttpMediaTypeNotAcceptableException;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import rivo.core.estate.Problem;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What is wrong with a request is said in a sentence, with its place and without a class. */
class MalformedTest {

    private record Body(List<Inner> inner, String name) {
    }

    private record Inner(int n) {
    }

    private static String said(String json) {
        try {
            new JsonMapper().readValue(json, Body.class);
            throw new AssertionError("it could be read");
        } catch (JacksonException e) {
            return Malformed.sentence(new HttpMessageNotReadableException("x", e, new MockHttpInputMessage(new byte[0])));
        }
    }

    @Test
    void aBodyIsWrongAtAPlace() {
        assertThat(said("{\n  \"inner\": [}")).isEqualTo("The body is no JSON: it breaks at line 2, column 13.");
        assertThat(said("{\"inner\":[{\"n\":1},{\"n\":\"x\"}]}")).startsWith("The body is not what this address takes: inner[1].n is of another kind");
        assertThat(said("[]")).startsWith("The body is missing, or not what this address takes");
        assertThat(said("{\"name\":{}}")).contains(": name is");
    }

    @Test
    void aPlaceIsNeverEndless() {
        for (int length : new int[] {200, 201}) {
            JacksonException e = null;
            try {
                new JsonMapper().readValue("{\"" + "a".repeat(length) + "\":{\"b\":\"x\"}}", new TypeReference<Map<String, Integer>>() {
                });
            } catch (JacksonException thrown) {
                e = thrown;
            }
            String sentence = Malformed.sentence(new HttpMessageNotReadableException("x", e, new MockHttpInputMessage(new byte[0])));
            assertThat(sentence).contains("a".repeat(200) + (length == 200 ? " is of" : "… is of"));
        }
    }

    private static Exception mismatch(Class<?> type) {
        return new MethodArgumentTypeMismatchException("x", type, "limit", null, new IllegalArgumentException());
    }

    @ParameterizedTest
    @CsvSource({"int,true", "long,true", "java.lang.Integer,true", "boolean,false", "java.time.Instant,false"})
    void aNumberIsAskedForWhereOneIsMeant(String type, boolean number) throws ClassNotFoundException {
        Class<?> asked = Map.<String, Class<?>>of("int", int.class, "long", long.class, "boolean", boolean.class).get(type);
        assertThat(Malformed.sentence(mismatch(asked == null ? Class.forName(type) : asked)))
                .contains(number ? "limit is a whole number" : "limit is of another kind");
    }

    @Test
    void eachHasItsCodeAndItsRemedy() {
        Map<Exception, String> said = Map.of(new MissingServletRequestParameterException("q", "String"), "bad-parameter: The parameter q is missing",
                mismatch(int.class), "bad-parameter: The parameter limit", new HttpRequestMethodNotSupportedException("PUT"),
                "wrong-method: This address takes another method", new HttpMediaTypeNotSupportedException("text/x"),
                "wrong-type: The body is of a type that this address does not take", new HttpMediaTypeNotAcceptableException("x"),
                "wrong-type: The answer cannot be given in a type", new NoResourceFoundException(HttpMethod.GET, "/x", "x"),
                "unknown-address: There is nothing at this address", new HttpMessageNotReadableException("x", new MockHttpInputMessage(new byte[0])),
                "malformed: The body is missing");
        said.forEach((e, words) -> assertThat(Malformed.code(e) + ": " + Malformed.sentence(e)).startsWith(words));
    }

    private record Values(List<String> texts, Map<String, String> map, java.time.Instant at, Values within,
            @org.jspecify.annotations.Nullable String maybe) {
    }

    @Test
    void whatHasBeenReadIsWalkedToItsLeaves() {
        List<String> withNull = new java.util.ArrayList<>(List.of("a"));
        withNull.add(null);
        Values inner = new Values(List.of("fine", "\ud800"), Map.of("key\u0000", "v"), java.time.Instant.parse("2026-11-28T00:00:00Z"), null, null);
        Values outer = new Values(withNull, Map.of("k", "a\u0000"), java.time.Instant.MAX, inner, null);
        assertThat(ReadValues.problems(outer)).extracting(Problem::place).containsExactlyInAnyOrder("texts[1]", "map.k", "at", "within.texts[1]",
                "within.map", "within.within");
        assertThat(ReadValues.problems(new Values(java.util.stream.IntStream.range(0, 300).mapToObj(i -> "\u0000").toList(), Map.of(),
                java.time.Instant.EPOCH, inner, "x")).size()).isEqualTo(100);
        assertThatThrownBy(() -> Page.of(-1, 5, 10)).hasMessageContaining("from 0 on");
    }

    @Test
    void whoIsToldToComeAgainIsToldWhen() {
        ApiException busy = ApiException.busy("busy", "Try again.");
        assertThat(busy.status().value()).isEqualTo(503);
        assertThat(busy.retryAfterSeconds()).contains(1L);
        assertThat(busy.logged()).isTrue();
        assertThat(ApiException.tooMany("x", "y", 0).retryAfterSeconds()).contains(1L);
        assertThat(ApiException.tooMany("x", "y", 7).retryAfterSeconds()).contains(7L);
        assertThat(ApiException.notFound("x", "y").retryAfterSeconds()).isEmpty();
        assertThat(ApiException.notFound("x", "y").logged()).isFalse();
        assertThat(ApiException.conflict("x", "y").logged()).isFalse();
    }
}
