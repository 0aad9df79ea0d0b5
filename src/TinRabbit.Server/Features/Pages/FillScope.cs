namespace TinRabbit.Server.Features.Pages;

/// <summary>Which pictures a pattern fills.</summary>
public enum FillScope
{
    Empty,
    Selected,
    All,
}
