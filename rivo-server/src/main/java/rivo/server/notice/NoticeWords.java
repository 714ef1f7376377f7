package rivo.server.notice;

import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import java.util.Properties;
import java.util.TreeMap;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/**
 * In which words people are told and asked, in each language of {@code notices/LANGUAGE.properties} (a tag of RFC 5646); another language is another
 * file there. Immutable.
 */
public final class NoticeWords {

    private static final NoticeWords SHIPPED = read();
    private static final String ENDING = ".properties";

    private final Map<String, Properties> byLanguage;

    private NoticeWords(Map<String, Properties> byLanguage) {
        this.byLanguage = byLanguage;
    }

    /** Those that come with Rivo. */
    public static NoticeWords shipped() {
        return SHIPPED;
    }

    private static NoticeWords read() {
        Map<String, Properties> byLanguage = new TreeMap<>();
        try {
            for (Resource file : new PathMatchingResourcePatternResolver().getResources("classpath:notices/*.properties")) {
                Properties words = new Properties();
                try (Reader reader = new InputStreamReader(file.getInputStream(), StandardCharsets.UTF_8)) {
                    words.load(reader);
                }
                String name = Objects.requireNonNull(file.getFilename());
                byLanguage.put(name.substring(0, name.length() - ENDING.length()), words);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the words of notices cannot be read", e);
        }
        return new NoticeWords(byLanguage);
    }

    /**
     * The words by language; {@code {time}} stays for whoever shows them.
     *
     * @param key such as {@code coming.install}
     * @param values put in for {@code {NAME}}
     * @throws IllegalArgumentException where a language has no such words
     */
    public Map<String, String> of(String key, Map<String, String> values) {
        Map<String, String> words = new TreeMap<>();
        byLanguage.forEach((language, own) -> {
            String text = own.getProperty(key);
            if (text == null) {
                throw new IllegalArgumentException("notices/" + language + ENDING + " has no " + key);
            }
            words.put(language, filled(text, values));
        });
        return words;
    }

    private static String filled(String text, Map<String, String> values) {
        String filled = text;
        for (Map.Entry<String, String> value : values.entrySet()) {
            filled = filled.replace("{" + value.getKey() + "}", value.getValue());
        }
        return filled;
    }
}
