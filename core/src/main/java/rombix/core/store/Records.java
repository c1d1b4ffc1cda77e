package rombix.core.store;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.Version;
import tools.jackson.databind.BeanDescription;
import tools.jackson.databind.DeserializationConfig;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.deser.ValueInstantiator;
import tools.jackson.databind.deser.ValueInstantiators;
import tools.jackson.databind.deser.std.StdValueInstantiator;
import tools.jackson.databind.introspect.AnnotatedWithParams;

/**
 * Makes records by their constructors as such. The library does so by method handles, each of which the JDK has to
 * generate code for: half of the time that the first board of a process takes to read.
 */
final class Records extends JacksonModule {
    @Override
    public String getModuleName() {
        return "records";
    }

    @Override
    public Version version() {
        return Version.unknownVersion();
    }

    @Override
    public void setupModule(SetupContext context) {
        context.addValueInstantiators(new ValueInstantiators.Base() {
            @Override
            public ValueInstantiator modifyValueInstantiator(DeserializationConfig config, BeanDescription.Supplier of,
                    ValueInstantiator usual) {
                return of.getBeanClass().isRecord() && usual instanceof StdValueInstantiator std
                        ? new Direct(std)
                        : usual;
            }
        });
    }

    private static final class Direct extends StdValueInstantiator {
        Direct(StdValueInstantiator usual) {
            super(usual);
        }

        @Override
        public Object createFromObjectWith(DeserializationContext context, Object[] args) throws JacksonException {
            AnnotatedWithParams creator = getWithArgsCreator();
            if (creator == null || !(creator.getAnnotated() instanceof Constructor<?> constructor)) {
                return super.createFromObjectWith(context, args);
            }
            try {
                return constructor.newInstance(args);
            } catch (InvocationTargetException e) {
                return context.handleInstantiationProblem(getValueClass(), args, rewrapCtorProblem(context, e
                        .getCause()));
            } catch (ReflectiveOperationException | IllegalArgumentException e) {
                return context.handleInstantiationProblem(getValueClass(), args, rewrapCtorProblem(context, e));
            }
        }
    }
}
