<?php

declare(strict_types=1);

namespace Mensura\Exchange\NetworkJson;

use Mensura\Fault\UnusableInput;
use Mensura\Network\GridFrame;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/** The frames of "frame": {"type": "crs"}: a code of the registry, and a geoid file by path or by its installed name. */
final readonly class CrsFrames
{
    /** @param \Closure(): Registry $registry opened only when a file asks for it */
    public function __construct(private \Closure $registry, private GridFiles $files)
    {
    }

    /** @throws UnusableInput */
    public function frame(string $crs, ?string $geoid): GridFrame
    {
        try {
            $system = ($this->registry)()->system($crs);
            if (null !== $system->vertical) {
                throw new UnusableInput('frame.crs', 'name the horizontal system alone, and the geoid file in frame.geoid');
            }
            $path = null === $geoid || (file_exists($geoid) && !is_dir($geoid)) ? $geoid : $this->files->find([$geoid])
                ?? throw new UnusableInput('frame.geoid', \sprintf('the geoid file %s cannot be read; is the path right?', $geoid));

            return new GridFrame($system->horizontal, null === $path ? null : $this->files->geoid($path));
        } catch (UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput('frame.crs', $e->getMessage());
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('frame.geoid', $e->getMessage());
        }
    }
}
