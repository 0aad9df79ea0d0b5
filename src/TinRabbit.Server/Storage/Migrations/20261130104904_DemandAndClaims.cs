using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class DemandAndClaims : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "OwnWords",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValueSql: "'[]'");

            migrationBuilder.AddColumn<long>(
                name: "VolumeBelow",
                table: "Readings",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "FitByHand",
                table: "Picks",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            // Nobody knows which fits were chosen before this was kept: none of them is changed by the facts.
            migrationBuilder.Sql("UPDATE Picks SET FitByHand = 1");
            migrationBuilder.Sql("UPDATE Picks SET Home = 'Description' WHERE Home = 'Body'");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "OwnWords",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "VolumeBelow",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "FitByHand",
                table: "Picks");
        }
    }
}
