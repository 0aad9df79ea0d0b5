using System.Text.Json.Serialization;

namespace TinRabbit.Server.Files.Documents;

/// <summary>The home of a pick in a shop's file. Files from before wrote "body" for the description.</summary>
internal sealed class HomeJson : JsonConverter<Home>
{
    public override Home Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var name = reader.TokenType == JsonTokenType.String ? reader.GetString() : null;
        return name == "body" ? Home.Description
            : Enum.TryParse<Home>(name, ignoreCase: true, out var home) && Enum.IsDefined(home) && !char.IsAsciiDigit(name![0]) ? home
            : throw new InvalidInputException([new("home", $"\"{name}\" is no home of a pick.")]);
    }

    public override void Write(Utf8JsonWriter writer, Home value, JsonSerializerOptions options) =>
        writer.WriteStringValue(JsonNamingPolicy.CamelCase.ConvertName(value.ToString()));
}
