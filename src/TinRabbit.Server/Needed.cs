using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server;

/// <summary>What a request must have: every parameter of its record that can be neither null nor left out, and no null among its lists.</summary>
internal static class Needed
{
    /// <summary>Marks what can be neither null nor left out. A whole document (<see cref="JsonElement"/>) is looked at by who reads it.</summary>
    public static void Mark(JsonTypeInfo type)
    {
        foreach (var property in type.Properties)
            if (property.AssociatedParameter is { HasDefaultValue: false, IsNullable: false } parameter && parameter.ParameterType != typeof(JsonElement))
                property.IsRequired = true;
    }

    /// <summary>Refuses a request with a null in one of its lists, which the reader lets through.</summary>
    /// <exception cref="FormatProblems">There is one; the path names it.</exception>
    public static ValueTask<object?> NoNulls(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var problems = context.Arguments.Where(IsOurs).SelectMany(a => Nulls(a!, "")).Select(path => new Problem(path, "This is nothing: leave it out.")).ToList();
        return problems.Count == 0 ? next(context) : throw new FormatProblems(problems);
    }

    private static bool IsOurs(object? value) => value?.GetType() is { IsClass: true, IsArray: false } type && type.Assembly == typeof(Needed).Assembly && type.GetMethod("<Clone>$") is not null;

    private static IEnumerable<string> Nulls(object record, string path)
    {
        foreach (var property in record.GetType().GetProperties().Where(p => p.GetIndexParameters().Length == 0))
        {
            var at = path + JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (property.GetValue(record) is not { } value)
                continue;
            if (IsOurs(value))
                foreach (var found in Nulls(value, at + "."))
                    yield return found;
            else if (value is IList list && !property.PropertyType.GenericTypeArguments.Any(t => Nullable.GetUnderlyingType(t) is not null))
                for (var i = 0; i < list.Count; i++)
                    if (list[i] is not { } item)
                        yield return $"{at}[{i}]";
                    else if (IsOurs(item))
                        foreach (var found in Nulls(item, $"{at}[{i}]."))
                            yield return found;
        }
    }
}
