package rivo.server.web;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The API in words for programs (OpenAPI 3.1): a record's component is required unless it may be null. */
@Configuration
class OpenApi {

    @Bean
    OpenAPI description() {
        return new OpenAPI().info(new Info().title("Rivo").version("1")
                .description("Who receives which software, why, and how far it is.")).servers(List.of(new Server().url("/")));
    }

    @Bean
    ModelConverter requiredUnlessNullable() {
        return new RequiredUnlessNullable();
    }

    private static final class RequiredUnlessNullable implements ModelConverter {

        @Override
        public @Nullable Schema<?> resolve(AnnotatedType type, ModelConverterContext context,
                Iterator<ModelConverter> chain) {
            if (!chain.hasNext()) {
                return null;
            }
            Schema<?> schema = chain.next().resolve(type, context, chain);
            JavaType java = Json.mapper().constructType(type.getType());
            if (schema != null && java != null && java.getRawClass().isRecord()) {
                String reference = schema.get$ref();
                Schema<?> defined = reference == null ? schema : context.getDefinedModels()
                        .get(reference.substring(reference.lastIndexOf('/') + 1));
                if (defined != null) {
                    defined.setRequired(required(java.getRawClass()));
                }
            }
            return schema;
        }

        private static List<String> required(Class<?> record) {
            List<String> required = new ArrayList<>();
            for (RecordComponent component : record.getRecordComponents()) {
                if (!component.getAnnotatedType().isAnnotationPresent(Nullable.class) && !mayBeLeftOut(record, component)) {
                    required.add(component.getName());
                }
            }
            return required;
        }

        /** Whether what is empty or as usual is left out of the JSON, or stands in the JSON of the whole. */
        private static boolean mayBeLeftOut(Class<?> record, RecordComponent component) {
            JsonInclude own = component.getAccessor().getAnnotation(JsonInclude.class);
            JsonInclude ofAll = record.getAnnotation(JsonInclude.class);
            JsonInclude.Include include = own != null ? own.value() : ofAll != null ? ofAll.value() : JsonInclude.Include.ALWAYS;
            boolean holdsMany = List.class.isAssignableFrom(component.getType()) || Map.class.isAssignableFrom(component.getType());
            return component.getAccessor().isAnnotationPresent(JsonUnwrapped.class) || include == JsonInclude.Include.NON_DEFAULT
                    || include == JsonInclude.Include.NON_EMPTY && holdsMany;
        }
    }
}
