package rivo.formats.trail;

import java.io.OutputStream;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Group;
import rivo.core.explain.ReleaseLook;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.explain.Verdict;
import rivo.core.resolve.Decision;
import rivo.core.rule.Clause;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.PrettyPrinter;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;

/**
 * A trail as JSON: {@code decision} (absent when nothing comes out), {@code sentence}, {@code rungs} with their verdicts,
 * {@code releases}, and under {@code other} the trail of the title that implies, replaces, displaces or blocks this one.
 */
public final class TrailJson {

    private static final ObjectWriteContext INDENTED = new ObjectWriteContext.Base() {
        @Override
        public PrettyPrinter getPrettyPrinter() {
            return new DefaultPrettyPrinter();
        }

        @Override
        public boolean hasPrettyPrinter() {
            return true;
        }
    };

    private final JsonGenerator json;

    private TrailJson(JsonGenerator json) {
        this.json = json;
    }

    /** Writes to the stream, which is flushed and left open. */
    public static void write(Trail trail, OutputStream out) {
        try (JsonGenerator json = JsonFactory.builder().disable(StreamWriteFeature.AUTO_CLOSE_TARGET).build()
                .createGenerator(INDENTED, out)) {
            new TrailJson(json).trail(trail);
        }
    }

    private void text(String key, @Nullable String value) {
        if (value != null && !value.isEmpty()) {
            json.writeStringProperty(key, value);
        }
    }

    private void trail(Trail trail) {
        json.writeStartObject();
        text("title", trail.title().id());
        trail.decision().ifPresent(this::decision);
        text("sentence", trail.sentence());
        json.writeArrayPropertyStart("rungs");
        trail.rungs().forEach(rung -> rung(trail, rung));
        json.writeEndArray();
        json.writeArrayPropertyStart("releases");
        trail.releases().forEach(this::release);
        json.writeEndArray();
        Trail other = trail.other();
        if (other != null) {
            json.writeName("other");
            // Only who decided it: trails that name each other in turn would have no end.
            other(other);
        }
        json.writeEndObject();
    }

    private void other(Trail other) {
        json.writeStartObject();
        text("title", other.title().id());
        other.decision().ifPresent(this::decision);
        Rung deciding = other.deciding();
        if (deciding != null) {
            text("assignment", deciding.assignment().id());
            text("target", deciding.target().toString());
        }
        json.writeEndObject();
    }

    private void decision(Decision decision) {
        json.writeObjectPropertyStart("decision");
        text("outcome", decision.outcome().word());
        text("reason", decision.reason() == null ? null : decision.reason().word());
        text("release", decision.release() == null ? null : decision.release().version().toString());
        text("variant", decision.variant());
        json.writeArrayPropertyStart("assignments");
        decision.deciding().stream().map(Assignment::id).forEach(json::writeString);
        json.writeEndArray();
        text("by", decision.by());
        json.writeEndObject();
    }

    private void rung(Trail trail, Rung rung) {
        json.writeStartObject();
        text("assignment", rung.assignment().id());
        text("intent", rung.assignment().intent().word());
        text("follows", rung.assignment().follows().word());
        text("target", rung.target().toString());
        json.writeBooleanProperty("binding", rung.rank().binding());
        json.writeNumberProperty("priority", rung.rank().priority());
        verdict(rung.verdict());
        text("sentence", trail.sentence(rung));
        text("person", rung.person());
        chain("through", rung.chain());
        clauses("within", trail.clauses(rung));
        json.writeEndObject();
    }

    private void verdict(Verdict verdict) {
        text("verdict", verdict.kind().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'));
        if (verdict instanceof Verdict.Weaker weaker) {
            text("step", weaker.step().name().toLowerCase(java.util.Locale.ROOT));
            text("than", weaker.than().id());
        } else if (verdict instanceof Verdict.Later later) {
            json.writeNumberProperty("wave", later.wave());
        } else if (verdict instanceof Verdict.StoppedByFence stopped) {
            text("fence", stopped.fence().id());
        } else if (verdict instanceof Verdict.Excluded excluded) {
            text("excludedBy", excluded.by().toString());
            chain("excludedThrough", excluded.chain());
        } else if (verdict instanceof Verdict.OutsideBase outside) {
            text("base", outside.base().id());
        } else if (verdict instanceof Verdict.Agrees agrees) {
            text("than", agrees.winner().id());
        } else if (verdict instanceof Verdict.NotLive notLive) {
            text("why", notLive.why().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'));
        }
    }

    private void chain(String key, List<Group> chain) {
        if (!chain.isEmpty()) {
            json.writeArrayPropertyStart(key);
            chain.forEach(group -> json.writeString(group.id()));
            json.writeEndArray();
        }
    }

    private void clauses(String key, List<Clause> clauses) {
        if (clauses.isEmpty()) {
            return;
        }
        json.writeArrayPropertyStart(key);
        for (Clause clause : clauses) {
            json.writeStartObject();
            text("clause", clause.words());
            json.writeBooleanProperty("holds", clause.holds());
            json.writeArrayPropertyStart("seen");
            clause.seen().forEach(json::writeString);
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void release(ReleaseLook look) {
        json.writeStartObject();
        text("version", look.release().version().toString());
        text("verdict", look.kind().word());
        json.writeArrayPropertyStart("variants");
        for (ReleaseLook.VariantLook variant : look.variants()) {
            json.writeStartObject();
            text("id", variant.variant().id());
            json.writeBooleanProperty("fits", variant.fits());
            clauses("rule", Objects.requireNonNull(variant.clauses()));
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
