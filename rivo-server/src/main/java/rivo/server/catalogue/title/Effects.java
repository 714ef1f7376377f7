package rivo.server.catalogue.title;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.server.estate.Snapshot;

/** What an edit of the catalogue would change, for how many of how many devices. */
public record Effects(int devices, List<Effect> effects) {

    /** @param effect such as gains or other-release, as in the difference CSV */
    record Effect(String title, String name, String effect, @Nullable String version, int devices) {
        Effect and(Effect more) {
            return new Effect(title, name, effect, version, devices + more.devices);
        }
    }

    public static Effects of(Snapshot before, Snapshot after) {
        Map<String, Effect> effects = new LinkedHashMap<>();
        for (TitleDifference difference : Rehearsal.of(before.resolver(), after.resolver()).changed()) {
            for (Difference part : difference.differences()) {
                var release = part.after() == null ? null : part.after().release();
                Effect effect = new Effect(difference.title().id(), difference.title().name(), part.effect().word(),
                        release == null ? null : release.version().toString(), part.units().size());
                effects.merge(effect.title() + "\n" + effect.effect() + "\n" + effect.version(), effect, Effect::and);
            }
        }
        return new Effects(before.estate().devices().size(), List.copyOf(effects.values()));
    }
}
