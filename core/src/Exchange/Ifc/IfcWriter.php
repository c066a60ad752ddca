<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Bodies\Placement;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Exchange\Ifc\Internal\Properties;
use Plinth\Core\Exchange\Ifc\Internal\Solids;
use Plinth\Core\Exchange\Ifc\Internal\StepFile;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Core\Plan\Model\Wall;

/**
 * Writes a building as IFC4 (ISO 16739-1:2018) in the form of ISO 10303-21: project, site, building, storeys, rooms; walls with their
 * openings, which doors and windows fill; all else that stands. Millimetres; every solid is the core's own body.
 *
 * Entities and their attributes from memory of the published schema; held against web-ifc in the tests.
 */
final class IfcWriter
{
    private StepFile $step;
    private Solids $shapes;
    private Properties $properties;
    /** @var array<string, list<string>> walls by name of build-up and thickness */
    private array $layered = [];
    /** @var array<string, list<string>> things by kind of object */
    private array $kinds = [];
    private ?EnclosurePlan $enclosures = null;
    /** @var array<string, string> names of classes of fire resistance, by id */
    private array $classes = [];
    /** @var array<string, string> classes of what a wall bounds, by its id */
    private array $rated = [];
    /** @var array<string, string> spaces by id of their rooms */
    private array $rooms = [];

    private function __construct(private readonly Plan $plan, private readonly IfcProject $project)
    {
        $this->step = new StepFile();
    }

    /** @param list<string> $remarks what whoever reads it should know */
    public static function write(Plan $plan, IfcProject $project, array $remarks = []): string
    {
        $writer = new self($plan, $project);
        $writer->draw();

        return $writer->step->written(
            "$project->name.ifc",
            $project->stamp,
            'IFC4',
            'DesignTransferView_V1.0',
            $remarks,
        );
    }

    private function draw(): void
    {
        [$project, $site, $building, $at] = $this->frame();
        $bodies = new BuildingBodies($this->plan);
        $this->enclosures = [] === $this->plan->fire->enclosures ? null : EnclosurePlan::of($this->plan);
        $this->classes = array_column($this->plan->fire->classes, 'name', 'id');
        foreach ($this->enclosures?->bounding() ?? [] as $wall => $classes) {
            $this->rated[$wall] = implode(', ', array_map(fn (string $c): string => $this->classes[$c] ?? '', $classes));
        }
        $storeys = [];
        foreach ($this->plan->storeys as $storey) {
            $storeys[] = $this->storey($storey, $bodies, $at);
        }
        $this->aggregate('project', $project, [$site]);
        $this->aggregate('site', $site, [$building]);
        $this->aggregate('building', $building, $storeys);
        $this->zones();
        $this->materials();
        $this->classified($project);
    }

    /** @return array{string, string, string, string} project, site, building, and where that stands */
    private function frame(): array
    {
        $s = $this->step;
        $zero = $s->add('IFCCARTESIANPOINT', '(0.,0.,0.)');
        $world = $s->add('IFCAXIS2PLACEMENT3D', $zero, '$', '$');
        // North lies as far counter-clockwise from up as up lies clockwise from north.
        $turn = deg2rad($this->project->bearing ?? 0.0);
        $north = null === $this->project->bearing ? '$' : $s->add('IFCDIRECTION', StepFile::reals([-sin($turn), cos($turn)]));
        $context = $s->add('IFCGEOMETRICREPRESENTATIONCONTEXT', '$', "'Model'", '3', '1.E-5', $world, $north);
        $within = static fn (string $named, string $view): string => $s->add(
            'IFCGEOMETRICREPRESENTATIONSUBCONTEXT',
            ...["'$named'", "'Model'", '*', '*', '*', '*', $context, '$', $view, '$'],
        );
        [$body, $flat] = [$within('Body', '.MODEL_VIEW.'), $within('FootPrint', '.PLAN_VIEW.')];
        $units = $s->add('IFCUNITASSIGNMENT', StepFile::list([
            $s->add('IFCSIUNIT', '*', '.LENGTHUNIT.', '.MILLI.', '.METRE.'),
            $s->add('IFCSIUNIT', '*', '.AREAUNIT.', '$', '.SQUARE_METRE.'),
            $s->add('IFCSIUNIT', '*', '.VOLUMEUNIT.', '$', '.CUBIC_METRE.'),
            $s->add('IFCSIUNIT', '*', '.PLANEANGLEUNIT.', '$', '.RADIAN.'),
        ]));
        $this->shapes = new Solids($s, $body);
        $this->properties = new Properties($s, $this->project->id);
        $name = StepFile::text($this->project->name);
        $project = $s->add('IFCPROJECT', $this->id('project'), '$', $name, '$', '$', '$', '$', "($context)", $units);
        $this->georeference($context);
        $at = $s->add('IFCLOCALPLACEMENT', '$', $world);
        $rings = array_map(fn ($c): string => $this->shapes->ring($c->points()), $this->project->boundaries);
        $ground = [] === $rings ? '$' : $this->shapes->shape(
            [$s->add('IFCGEOMETRICCURVESET', StepFile::list($rings))],
            'GeometricCurveSet',
            $flat,
            'FootPrint',
        );
        $site = $s->add('IFCSITE', $this->id('site'), '$', "'Site'", '$', '$', $at, $ground, '$', '.ELEMENT.', '$', '$', '$', '$', '$');
        if ([] !== $this->project->boundaries) {
            $area = array_sum(array_map(static fn ($c): float => abs($c->area()), $this->project->boundaries));
            $this->properties->quantities($site, 'site', 'Qto_SiteBaseQuantities', ['GrossArea' => ['area', $area / 1e6]]);
        }
        $there = $s->add('IFCLOCALPLACEMENT', $at, $world);
        $rest = [$there, '$', '$', '.ELEMENT.', '$', '$', '$'];
        $building = $s->add('IFCBUILDING', $this->id('building'), '$', $name, '$', '$', ...$rest);

        return [$project, $site, $building, $there];
    }

    /** IfcMapConversion takes coordinates in the project's unit: its scale is that of the reference's metre to a millimetre. */
    private function georeference(string $context): void
    {
        $at = $this->project->georeference;
        if (null === $at) {
            return;
        }
        $metre = $this->step->add('IFCSIUNIT', '*', '.LENGTHUNIT.', '$', '.METRE.');
        $reference = $this->step->add('IFCPROJECTEDCRS', StepFile::text($at->reference), '$', '$', '$', '$', '$', $metre);
        $this->step->add(
            'IFCMAPCONVERSION',
            $context,
            $reference,
            StepFile::real($at->east),
            StepFile::real($at->north),
            StepFile::real($at->height),
            StepFile::real(cos(deg2rad($at->degrees))),
            StepFile::real(sin(deg2rad($at->degrees))),
            StepFile::real($at->scale / 1000.0),
        );
    }

    private function storey(Storey $storey, BuildingBodies $bodies, string $building): string
    {
        $at = $this->shapes->placed(0.0, 0.0, $storey->elevation, $building);
        $name = StepFile::text('' === $storey->name ? 'Storey' : $storey->name);
        $rest = [$at, '$', '$', '.ELEMENT.', StepFile::real($storey->elevation)];
        $row = $this->step->add('IFCBUILDINGSTOREY', $this->id('storey', $storey->id), '$', $name, '$', '$', ...$rest);
        $derived = Derivation::of($storey);
        if ($derived->areasMm2['grossFloor'] > 0.0) {
            $this->properties->quantities($row, $storey->id, 'Qto_BuildingStoreyBaseQuantities', [
                'GrossFloorArea' => ['area', $derived->areasMm2['grossFloor'] / 1e6],
                'NetFloorArea' => ['area', $derived->areasMm2['netFloor'] / 1e6],
            ], 'ISO 9836');
        }
        $from = $this->project->tracedFrom[$storey->id] ?? '';
        if ('' !== $from) {
            $this->properties->set([$row], $storey->id, 'TracedFrom', ['Drawing' => $from]);
        }
        $things = $this->things($storey, $bodies, $at);
        if ([] !== $things) {
            $all = StepFile::list($things);
            $this->step->add('IFCRELCONTAINEDINSPATIALSTRUCTURE', $this->id('contained', $storey->id), '$', '$', '$', $all, $row);
        }
        $this->aggregate("spaces $storey->id", $row, $this->spaces($storey, $bodies, $derived, $at));

        return $row;
    }

    /** @return list<string> what stands on a storey */
    private function things(Storey $storey, BuildingBodies $bodies, string $at): array
    {
        $walls = array_column($storey->walls, null, 'id');
        $objects = array_column($storey->objects, 'kind', 'id');
        $pierced = $bodies->storey($storey->id)->pierced();
        $fills = [];
        $objectBodies = [];
        foreach ($bodies->storey($storey->id)->fills() as $body) {
            if (BodyKind::Object === $body->kind) {
                $objectBodies[] = $body;
            } else {
                $fills[$body->id][] = $body;
            }
        }
        $things = [];
        $stands = [];
        foreach ([...$bodies->storey($storey->id)->shell(), ...$objectBodies] as $body) {
            // A moulding is a body for each piece of its path, a stair one with its rails beside it.
            $count = $stands[$body->kind->value.$body->id] = ($stands[$body->kind->value.$body->id] ?? 0) + 1;
            $named = $body->kind->value.(1 === $count ? '' : " $count");
            $mesh = BodyKind::Wall === $body->kind ? $pierced[$body->id][0] ?? $body->form : $body->form;
            $kind = $objects[$body->id] ?? $body->kind->value;
            $along = self::along($walls[$body->id] ?? null);
            $thing = $this->thing($body, $mesh, $named, $kind, $at, $storey->elevation, $along);
            $things[] = $thing;
            $volume = $body->form->volume() / 1e9;
            $wall = BodyKind::Wall === $body->kind ? $walls[$body->id] ?? null : null;
            if (null !== $wall) {
                $this->wall($thing, $wall, $volume, $mesh->volume() / 1e9);
            } elseif (BodyKind::Object === $body->kind) {
                $this->kinds[$objects[$body->id] ?? ''][] = $thing;
            }
            foreach (null === $wall ? [] : $pierced[$wall->id][1] ?? [] as $id => $cut) {
                array_push($things, ...$this->opening($storey, $id, $cut, $thing, $fills[$id] ?? [], $at, self::along($wall)));
            }
        }

        return $things;
    }

    /** @return array{float, float} a unit vector from its start to its end */
    private static function along(?Wall $wall): array
    {
        $long = null === $wall ? 0.0 : $wall->from->distanceTo($wall->to);

        return null === $wall || $long < 1e-6
            ? [1.0, 0.0]
            : [($wall->to->x - $wall->from->x) / $long, ($wall->to->y - $wall->from->y) / $long];
    }

    /** @param array{float, float} $along */
    private function thing(Body $body, Mesh $mesh, string $named, string $kind, string $at, float $elevation, array $along): string
    {
        [$entity, $type] = self::entity($body->kind);
        [$place, $shape] = $this->shapes->of([[$mesh, $body->placement]], $at, $elevation, $along);

        return $this->step->add($entity, $this->id($named, $body->id), '$', StepFile::text($kind), '$', '$', $place, $shape, '$', $type);
    }

    /** @return array{string, string} an entity and its predefined type */
    private static function entity(BodyKind $kind): array
    {
        return match ($kind) {
            BodyKind::Wall => ['IFCWALL', '.NOTDEFINED.'],
            BodyKind::Railing => ['IFCRAILING', '.NOTDEFINED.'],
            BodyKind::Column => ['IFCCOLUMN', '.COLUMN.'],
            BodyKind::Floor => ['IFCSLAB', '.FLOOR.'],
            BodyKind::Finish => ['IFCCOVERING', '.FLOORING.'],
            BodyKind::Ceiling => ['IFCCOVERING', '.CEILING.'],
            BodyKind::Swept => ['IFCCOVERING', '.MOLDING.'],
            BodyKind::Stair => ['IFCSTAIR', '.NOTDEFINED.'],
            BodyKind::Roof => ['IFCROOF', '.NOTDEFINED.'],
            BodyKind::Chimney => ['IFCCHIMNEY', '.NOTDEFINED.'],
            BodyKind::Object => ['IFCFURNITURE', '.NOTDEFINED.'],
            default => ['IFCBUILDINGELEMENTPROXY', '.NOTDEFINED.'],
        };
    }

    private function wall(string $thing, Wall $wall, float $net, float $gross): void
    {
        $name = $this->project->buildUps[$wall->id] ?? '';
        if ('' !== $name) {
            $this->layered[$name.'|'.$wall->thickness][] = $thing;
        }
        $rated = $this->rated[$wall->id] ?? '';
        $this->properties->set([$thing], $wall->id, 'Pset_WallCommon', [
            ...('' === $name ? [] : ['Reference' => $name]),
            ...('' === $rated ? [] : ['FireRating' => $rated, 'Compartmentation' => true]),
        ]);
        $this->properties->quantities($thing, $wall->id, 'Qto_WallBaseQuantities', [
            'Length' => ['length', $wall->length()],
            'Width' => ['length', $wall->thickness],
            'GrossVolume' => ['volume', $gross],
            'NetVolume' => ['volume', $net],
        ]);
    }

    /**
     * What is cut out of a wall, and what stands in it.
     *
     * @param list<Body> $fills
     * @param array{float, float} $along
     *
     * @return list<string>
     */
    private function opening(Storey $storey, string $id, Mesh $cut, string $wall, array $fills, string $at, array $along): array
    {
        [$place, $shape] = $this->shapes->of([[$cut, null]], $at, $storey->elevation, $along);
        $rest = [$place, $shape, '$', '.OPENING.'];
        $void = $this->step->add('IFCOPENINGELEMENT', $this->id('opening', $id), '$', "'opening'", '$', '$', ...$rest);
        $this->step->add('IFCRELVOIDSELEMENT', $this->id('voids', $id), '$', '$', '$', $wall, $void);
        $opening = array_column($storey->openings, null, 'id')[$id] ?? null;
        if (!$opening instanceof Opening || OpeningKind::Opening === $opening->kind || [] === $fills) {
            return [];
        }
        $parts = array_map(static fn (Body $b): array => [$b->form, self::opens($opening, $b->placement)], $fills);
        [$place, $shape] = $this->shapes->of($parts, $at, $storey->elevation);
        $isDoor = OpeningKind::Door === $opening->kind;
        $number = $this->project->numbers[$id] ?? '';
        $height = null === $opening->height ? '$' : StepFile::real($opening->height);
        $filling = $this->step->add(
            $isDoor ? 'IFCDOOR' : 'IFCWINDOW',
            $this->id($isDoor ? 'door' : 'window', $id),
            '$',
            StepFile::text('' === $number ? $opening->kind->value : $number),
            '$', '$', $place, $shape, '$', $height, StepFile::real($opening->width),
            $isDoor ? '.DOOR.' : '.WINDOW.', $isDoor ? self::operation($opening) : '.NOTDEFINED.', '$',
        );
        $this->step->add('IFCRELFILLSELEMENT', $this->id('fills', $id), '$', '$', '$', $void, $filling);
        $kind = $isDoor ? 'Door' : 'Window';
        $this->properties->set([$filling], $id, "Pset_{$kind}Common", [
            ...('' === $number ? [] : ['Reference' => $number]),
            ...('' === $opening->rated ? [] : ['FireRating' => $opening->rated]),
            ...($isDoor && DoorExit::None !== $opening->exit ? ['FireExit' => true] : []),
        ]);
        $this->properties->quantities($filling, $id, "Qto_{$kind}BaseQuantities", [
            'Width' => ['length', $opening->width],
            ...(null === $opening->height ? [] : ['Height' => ['length', $opening->height]]),
        ]);

        return [$filling];
    }

    /**
     * How a door opens (IfcDoorTypeOperationEnum): towards its placement's y, and on which side of that its hinges or its pocket are.
     */
    private static function operation(Opening $door): string
    {
        $hand = ('left' === $door->hand) === ('left' === $door->swing) ? 'LEFT' : 'RIGHT';

        return match ($door->leaf) {
            'sliding' => ".SLIDING_TO_$hand.",
            'double' => '.DOUBLE_DOOR_SINGLE_SWING.',
            default => ".SINGLE_SWING_$hand.",
        };
    }

    /** A placement whose y points to where the door opens: for one that opens to the right of its wall from its other end. */
    private static function opens(Opening $opening, ?Placement $at): ?Placement
    {
        $isTurned = null !== $at && OpeningKind::Door === $opening->kind && 'left' !== $opening->swing;

        return null === $at || !$isTurned ? $at : new Placement(
            $at->x + $opening->width * $at->cos,
            $at->y + $opening->width * $at->sin,
            $at->z,
            -$at->cos,
            -$at->sin,
        );
    }

    /** @return list<string> */
    private function spaces(Storey $storey, BuildingBodies $bodies, DerivedStorey $derived, string $at): array
    {
        $of = $bodies->storey($storey->id);
        $held = $of->spaces();
        $heights = array_column($of->heights(), null, 'region');
        $spaces = [];
        foreach ($derived->regions as $i => $region) {
            $mesh = $held[$region->key] ?? null;
            if (null === $mesh) {
                continue;
            }
            [$place, $shape] = $this->shapes->of([[$mesh, null]], $at, $storey->elevation);
            $id = $region->room->id ?? "$storey->id ".implode('+', $region->walls);
            $space = $this->step->add(
                'IFCSPACE',
                $this->id('space', $id),
                '$',
                StepFile::text($region->room->number ?? (string) ($i + 1)),
                '$', '$', $place, $shape,
                StepFile::text($region->room->name ?? null),
                '.ELEMENT.', '.INTERNAL.', '$',
            );
            $height = $heights[$region->key] ?? null;
            $this->properties->quantities($space, $id, 'Qto_SpaceBaseQuantities', [
                ...(null !== $height && abs($height->mostMm - $height->leastMm) < 0.5 ? ['Height' => ['length', $height->mostMm]] : []),
                'NetPerimeter' => ['length', self::perimeter($region)],
                'NetFloorArea' => ['area', $region->netAreaMm2 / 1e6],
                'NetVolume' => ['volume', $mesh->volume() / 1e9],
            ], 'ISO 9836');
            $this->properties->set([$space], $id, 'Pset_SpaceCoveringRequirements', $this->coverings($storey, $region));
            $spaces[] = $space;
            if (null !== $region->room) {
                $this->rooms[$region->room->id] = $space;
            }
        }

        return $spaces;
    }

    /** What is enclosed, as groups of its rooms: named by its class. */
    private function zones(): void
    {
        foreach ($this->enclosures->areas ?? [] as $area) {
            $of = $area->enclosure;
            $spaces = array_values(array_intersect_key($this->rooms, array_flip($of->rooms)));
            $class = $this->classes[$of->class] ?? '';
            if ([] === $spaces) {
                continue;
            }
            $zone = $this->step->add(
                'IFCZONE',
                $this->id('enclosure', $of->id),
                '$',
                StepFile::text($class),
                '$',
                "'fire compartment'",
                '$',
            );
            $this->step->add('IFCRELASSIGNSTOGROUP', $this->id('enclosed', $of->id), '$', '$', '$', StepFile::list($spaces), '$', $zone);
            $this->properties->set([$zone], $of->id, 'Pset_ZoneCommon', ['Reference' => $class]);
        }
    }

    /** @return array<string, string> names of finishes, by property */
    private function coverings(Storey $storey, Region $region): array
    {
        $names = array_column($this->plan->finishes, 'name', 'id');
        $says = [];
        foreach ($storey->surfaces as $surface) {
            $property = match ($surface->on) {
                SurfaceOn::Floor => 'FloorCovering',
                SurfaceOn::Walls => 'WallCovering',
                SurfaceOn::Ceiling => 'CeilingCovering',
                default => null,
            };
            if (null !== $property && null !== $region->room && $surface->of === $region->room->id && isset($names[$surface->finish])) {
                $says[$property] = $names[$surface->finish];
            }
        }

        return $says;
    }

    private static function perimeter(Region $region): float
    {
        $long = 0.0;
        foreach ([$region->polygon, ...$region->holes] as $ring) {
            foreach ($ring as $i => [$x, $y]) {
                [$ox, $oy] = $ring[0 === $i ? \count($ring) - 1 : $i - 1];
                $long += hypot($x - $ox, $y - $oy);
            }
        }

        return $long;
    }

    /** Walls of one build-up share its layer. */
    private function materials(): void
    {
        ksort($this->layered, \SORT_STRING);
        $materials = [];
        foreach ($this->layered as $key => $walls) {
            [$name, $thick] = [substr($key, 0, (int) strrpos($key, '|')), (float) substr($key, (int) strrpos($key, '|') + 1)];
            $materials[$name] ??= $this->step->add('IFCMATERIAL', StepFile::text($name), '$', '$');
            $rest = [StepFile::real($thick), '$', StepFile::text($name), '$', '$', '$'];
            $layer = $this->step->add('IFCMATERIALLAYER', $materials[$name], ...$rest);
            $set = $this->step->add('IFCMATERIALLAYERSET', "($layer)", StepFile::text($name), '$');
            $used = $this->step->add('IFCMATERIALLAYERSETUSAGE', $set, '.AXIS2.', '.POSITIVE.', StepFile::real(-$thick / 2.0), '$');
            $this->step->add('IFCRELASSOCIATESMATERIAL', $this->id('material', $key), '$', '$', '$', StepFile::list($walls), $used);
        }
    }

    /** What stands in rooms, by its kind. */
    private function classified(string $project): void
    {
        unset($this->kinds['']);
        if ([] === $this->kinds) {
            return;
        }
        $all = $this->step->add('IFCCLASSIFICATION', '$', '$', '$', "'Kinds of objects'", '$', '$', '$');
        $this->step->add('IFCRELASSOCIATESCLASSIFICATION', $this->id('classification'), '$', '$', '$', "($project)", $all);
        foreach ($this->kinds as $kind => $things) {
            $of = $this->step->add('IFCCLASSIFICATIONREFERENCE', '$', StepFile::text($kind), StepFile::text($kind), $all, '$', '$');
            $this->step->add('IFCRELASSOCIATESCLASSIFICATION', $this->id('kind', $kind), '$', '$', '$', StepFile::list($things), $of);
        }
    }

    /** @param list<string> $parts */
    private function aggregate(string $named, string $whole, array $parts): void
    {
        if ([] !== $parts) {
            $this->step->add('IFCRELAGGREGATES', $this->id('aggregates', $named), '$', '$', '$', $whole, StepFile::list($parts));
        }
    }

    private function id(string ...$parts): string
    {
        return "'".GlobalId::of($this->project->id, ...$parts)."'";
    }
}
