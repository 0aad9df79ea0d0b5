using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace TinRabbit.Server.Hosting;

/// <summary>
/// Tells in the OpenAPI document what is in the members that are whole documents: copy (by field a text, a list of texts, or attributes), one
/// field's value, and profiles. So that the front end is typed by it.
/// </summary>
internal static class OpenDocuments
{
    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        // Where an enumeration may be null, the member that refers to it says so.
        if (Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is { IsEnum: true } && schema.Enum is { } values)
            schema.Enum = [.. values.Where(v => v is not null)];
        if (schema.Properties is not { } properties)
            return Task.CompletedTask;
        foreach (var member in context.JsonTypeInfo.Properties)
            if (IsDocument(member.PropertyType) && SchemaOf(member.Name) is { } described)
            {
                if (member.IsGetNullable)
                    described = new() { OneOf = [described, new OpenApiSchema { Type = JsonSchemaType.Null }] };
                properties[member.Name] = described;
            }

        return Task.CompletedTask;
    }

    private static bool IsDocument(Type type) =>
        type == typeof(JsonElement) || type == typeof(JsonElement?) || type == typeof(JsonObject) || type == typeof(JsonNode);

    private static OpenApiSchema? SchemaOf(string member) =>
        member switch
        {
            "fields" or "copy" => Object(Value()),
            "value" => Value(),
            "profile" or "platform" => Object(new()),
            _ => null,
        };

    private static OpenApiSchema Value() => new() { OneOf = [Text(), List(), Object(new() { OneOf = [Text(), List()] })] };

    private static OpenApiSchema Text() => new() { Type = JsonSchemaType.String };

    private static OpenApiSchema List() => new() { Type = JsonSchemaType.Array, Items = Text() };

    private static OpenApiSchema Object(OpenApiSchema values) => new() { Type = JsonSchemaType.Object, AdditionalProperties = values };
}
