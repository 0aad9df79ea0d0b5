namespace TinRabbit.Server.Features.Pages;

/// <summary>What an imported thing is against the shop.</summary>
public enum ImportState
{
    New,
    Changed,
    Unchanged,
}
