package rivo.server.web;

import java.lang.reflect.Type;
import java.util.List;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;

/** Every JSON body is looked through by {@link ReadValues} before any handler sees it. */
@ControllerAdvice
class RequestBodyChecks extends RequestBodyAdviceAdapter {

    @Override
    public boolean supports(MethodParameter parameter, Type target, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(Object body, HttpInputMessage message, MethodParameter parameter, Type target,
            Class<? extends HttpMessageConverter<?>> converter) {
        List<Problem> problems = ReadValues.problems(body);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return body;
    }
}
