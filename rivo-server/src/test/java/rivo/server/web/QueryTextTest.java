package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands in a query is text, or refused. */
class QueryTextTest {

    @ParameterizedTest
    @CsvSource({"'',true", "q=labs,true", "q=%41,true", "q=%41%42,true", "%c3%a9,true", "q=%C3%A9&r=1,true", "q=%,false", "q=%4,false", "%4,false",
        "q=%4g,false", "q=%g4,false", "q=%00,false", "q=%01,true", "q=%10,true", "q=%c3,false", "q=%ff,false", "q=%c3%28,false", "q=%f0%9f%8c%8a,true"})
    void onlyUtf8IsText(String query, boolean text) {
        assertThat(QueryText.isUtf8(query)).isEqualTo(text);
    }
}
