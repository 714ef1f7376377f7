package rivo.core.resolve;

import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Step;
import rivo.core.estate.Scope;

/** Where each title is present, found out when somebody asks, and once for all states of the estate in which the same is present. Safe for any thread. */
final class PresencesOnce {

    private volatile @Nullable Presences known;

    PresencesOnce() {
    }

    private PresencesOnce(Presences known) {
        this.known = known;
    }

    /** Null as long as nobody has asked. */
    @Nullable Presences known() {
        return known;
    }

    /** @param audiences of one of the states that this is for */
    Presences of(Audiences audiences) {
        Presences found = known;
        if (found == null) {
            synchronized (this) {
                found = known;
                if (found == null) {
                    found = Presences.of(audiences);
                    known = found;
                }
            }
        }
        return found;
    }

    /**
     * That of a newer estate, whose titles have the same scopes: the same one, where no device has changed.
     *
     * @param step to the audiences of that estate
     */
    PresencesOnce after(Step step) {
        Presences found = known;
        if (found != null) {
            return new PresencesOnce(found.after(step));
        }
        return step.devices().areNone() && step.devices().changed().isEmpty() && step.units(Scope.USER).areNone() ? this : new PresencesOnce();
    }
}
