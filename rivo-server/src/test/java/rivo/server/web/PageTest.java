package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;

/** The asked part of a list. */
class PageTest {

    private static final List<String> LIST = List.of("a", "b", "c", "d", "e");

    @ParameterizedTest
    @CsvSource({"0, 2, ab, 2", "1, 2, bc, 3", "4, 3, e, 7", "5, 3, '', 8", "9, 1, '', 10", "0, 0, '', 0", "2, 100, cd, 4",
        "2147483647, 1, '', 2147483648"})
    void isCutOutOfTheListAndTheLimitIsCutDownToTheMost(int offset, int limit, String expected, long end) {
        Page page = Page.of(offset, limit, limit == 100 ? 2 : 3);
        assertThat(String.join("", page.of(LIST))).isEqualTo(expected);
        assertThat(page.end()).isEqualTo(end);
    }

    @ParameterizedTest
    @CsvSource({"-1, 1, offset", "0, -1, limit", "-1, -1, offset"})
    void isRefusedWhereItIsNegative(int offset, int limit, String place) {
        assertThatThrownBy(() -> Page.of(offset, limit, 10)).isInstanceOfSatisfying(RefusedException.class,
                e -> assertThat(e.problems()).extracting(Problem::place).containsExactly(place));
    }
}
