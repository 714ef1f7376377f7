package rivo.core.rule;

import java.time.Instant;
import java.util.List;

/** What a rule is asked about: a device, or one element of a complex attribute of it. */
public interface Subject {

    /** The instant against which periods such as {@code -P14D} are counted. */
    Instant asOf();

    /**
     * The values of a simple attribute, by its name in lower case; none when nothing has been reported.
     */
    List<String> values(String attribute);

    /** The elements of a complex attribute: {@code software}, {@code present} or {@code people}. */
    List<? extends Subject> elements(String attribute);
}
