package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

/** The journal keeps what is different. */
class JournalDifferenceTest {

    private static final JsonMapper JSON = new JsonMapper();

    @ParameterizedTest
    @CsvSource(delimiter = ';', quoteCharacter = '`', value = {
        "{'a':1,'b':2}; {'a':1,'b':3}; {'/b':2}; {'/b':3}",
        "{'a':1}; {'a':1}; {}; {}",
        "{'a':1}; {'b':1}; {'/a':1}; {'/b':1}",
        "{'x':{'a':1,'b':2}}; {'x':{'a':1,'b':5}}; {'/x/b':2}; {'/x/b':5}",
        "{'x':['en','cy']}; {'x':['en']}; {'/x':['en','cy']}; {'/x':['en']}",
        "{'r':[{'version':'1.0','n':''},{'version':'2.0'}]}; {'r':[{'version':'3.0'},{'version':'1.0','n':'old'},{'version':'2.0'}]}; "
            + "{'/r/1.0/n':''}; {'/r/1.0/n':'old','/r/3.0':{'version':'3.0'}}",
        "[{'id':'a'},{'id':'b'}]; [{'id':'b'}]; {'/a':{'id':'a'}}; {}",
        "[{'id':'a'},{'id':'a'}]; [{'id':'a'}]; {'':[{'id':'a'},{'id':'a'}]}; {'':[{'id':'a'}]}",
        "{'a':{'id':1}}; {'a':[1]}; {'/a':{'id':1}}; {'/a':[1]}",
        "{'fact x/y~z':'1'}; {'fact x/y~z':'2'}; {'/fact x~1y~0z':'1'}; {'/fact x~1y~0z':'2'}",
        "5; 6; {'':5}; {'':6}"})
    void onlyWhatIsDifferentIsSaid(String before, String after, String was, String is) {
        JournalDifference difference = JournalDifference.between(read(before), read(after));
        assertThat(Json.tree(difference.before())).isEqualTo(read(was));
        assertThat(Json.tree(difference.after())).isEqualTo(read(is));
    }

    private static tools.jackson.databind.JsonNode read(String json) {
        return JSON.readTree(json.replace('\'', '"'));
    }
}
