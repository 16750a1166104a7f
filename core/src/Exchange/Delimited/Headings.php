<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/**
 * Words that head the columns of field files in several languages, by what they mean: lower case, letters and digits only, umlauts
 * written out, the surest first. Common practice, collected from what surveyors write; a word means something else in another
 * kind of file, so that each kind looks at its own.
 */
final class Headings
{
    /** What a height is above, where the heading says so. */
    public const ELLIPSOIDAL = [
        'ellipsoidalheight', 'heightellipsoidal', 'ellipsoidheight', 'hellipsoidal', 'ellheight',
        'ellipsoidischehoehe', 'hoeheell', 'ellhoehe', 'hell',
    ];
    public const ORTHOMETRIC = [
        'orthometricheight', 'heightorthometric', 'horthometric', 'heightabovegeoid', 'levelledheight', 'orthometrischehoehe',
    ];

    public const NAME = [
        'point', 'pointid', 'pointname', 'pt', 'id', 'name', 'mark', 'station', 'number', 'pointnumber', 'punkt', 'punktnummer', 'punktnr',
        'punktname', 'pktnr', 'pkt', 'pnr', 'ptnr', 'ptno', 'ptid', 'pointno', 'punto', 'matricule', 'nom', 'nombre', 'numero', 'nummer',
        'no', 'nr', 'num', 'p',
    ];
    public const EASTING = [
        'e', 'easting', 'eastings', 'east', 'rechts', 'rechtswert', 'rw', 'ost', 'ostwert', 'este', 'est',
        'ecoordinate', 'ekoordinate', ...self::X,
    ];
    public const NORTHING = [
        'n', 'northing', 'northings', 'north', 'hoch', 'hochwert', 'hw', 'nord', 'nordwert', 'norte', 'ncoordinate',
        'nkoordinate', ...self::Y,
    ];
    /** X and Y are easting and northing in some countries and the other way round in others. */
    public const X = ['x', 'xcoordinate', 'xcoord', 'xkoordinate', 'coordx'];
    public const Y = ['y', 'ycoordinate', 'ycoord', 'ykoordinate', 'coordy'];
    public const HEIGHT = [
        'h', 'height', 'elevation', 'z', 'level', 'rl', 'elev', 'hoehe', 'hoehen', 'alt', 'altitude', 'altitud', 'cota', 'quota', 'kote',
        'zcoordinate', ...self::ELLIPSOIDAL, ...self::ORTHOMETRIC,
    ];
    public const LATITUDE = ['latitude', 'lat', 'geodeticlatitude', 'phi', 'breite', 'latitud', 'latitudine'];
    public const LONGITUDE = ['longitude', 'lon', 'lng', 'long', 'geodeticlongitude', 'lambda', 'laenge', 'longitud', 'longitudine'];
    public const CODE = [
        'code', 'description', 'feature', 'remark', 'desc', 'bemerkung', 'beschreibung', 'objektart', 'art', 'comment', 'kommentar', 'note',
        'codigo', 'descripcion',
    ];
    public const HELD = ['held', 'fixed', 'hold', 'constraint', 'fest', 'fixe', 'fijo'];
    public const SD_E = ['sde', 'sdeasting', 'sdeast', 'sigmae', 'stddeve', 'se', 'sx'];
    public const SD_N = ['sdn', 'sdnorthing', 'sdnorth', 'sigman', 'stddevn', 'sn', 'sy'];
    public const SD_H = ['sdh', 'sdheight', 'sigmah', 'stddevh', 'sdz', 'sh', 'sz'];

    public const TIME = [
        'time', 'timestamp', 'datetime', 'dateandtime', 'dateutc', 'timeutc', 'utc', 'observedat', 'measuredat', 'zeit', 'zeitpunkt',
        'date', 'datum', 'fecha',
    ];
    public const METHOD = ['method', 'solution', 'solutiontype', 'fixtype', 'fixquality', 'fix', 'methode', 'loesung', 'metodo'];
    public const SATELLITES = ['satellites', 'satellitesused', 'sats', 'numsats', 'numberofsatellites', 'sat', 'satelliten', 'satelites'];
    public const POSITIONS = ['positions', 'epochs', 'averaged', 'measurements', 'positionen', 'epochen', 'messungen'];
    public const LINEWORK = ['linework', 'line', 'string', 'linie', 'linienzug', 'ligne', 'linea'];
    public const SD_PLAN = ['sdplan', 'sdhorizontal', 'hrms', 'rmsplan', 'planprecision', 'horizontalprecision', 'sdlage'];
    public const SD_UP = ['sdup', 'sdvertical', 'vrms', 'rmsheight', 'heightprecision', 'verticalprecision', 'sdhoehe'];

    public const STATION = [
        'station', 'at', 'from', 'setup', 'instrumentstation', 'standpoint', 'occupied', 'standpunkt', 'stp', 'stn', 'stationname',
        'stationpoint', 'estacion', 'stazione', 'stand', 'st',
    ];
    public const ROUND = ['round', 'set', 'setupid', 'setupno', 'setnumber', 'roundno', 'satz', 'satznr', 'runde', 'serie', 'rnd'];
    public const FACE = ['face', 'lage', 'kreislage', 'facenumber', 'cercle', 'circle', 'posicion', 'fl'];
    public const INSTRUMENT_HEIGHT = [
        'hi', 'ih', 'instrumentheight', 'heightofinstrument', 'instheight', 'instrumentenhoehe', 'instrhoehe', 'geraetehoehe',
        'hauteurinstrument', 'alturainstrumento', 'instrument',
    ];
    public const TARGET = [
        'target', 'to', 'targetname', 'point', 'sighted', 'targetpoint', 'pointname', 'ziel', 'zielpunkt', 'zp',
        'vise', 'visado', 'foresight',
        'pt', 'punkt', 'pkt', 'pnr', 'ptnr', 'ptno', 'no', 'nr', 'name', 'id', 'p',
    ];
    public const TARGET_HEIGHT = [
        'ht', 'th', 'targetheight', 'heightoftarget', 'prismheight', 'hr', 'sh', 'zh', 'reflectorheight', 'rodheight', 'zielhoehe',
        'signalhoehe', 'reflektorhoehe', 'prismenhoehe', 'hauteurprisme', 'alturaprisma', 'hp',
    ];
    public const DIRECTION = [
        'direction', 'horizontaldirection', 'hz', 'horizontal', 'horizontalangle', 'horizontalcircle', 'hcr', 'ha',
        'har', 'hzangle', 'richtung',
        'hzwinkel', 'hzrichtung', 'horizontalrichtung', 'horizontalwinkel', 'dir', 'anglehorizontal', 'angulohorizontal', 'ah',
    ];
    public const BACKSIGHT = [
        'backsight', 'bs', 'back', 'backstation', 'anglefrom', 'rueckblick', 'anschlusspunkt', 'referencia', 'visearriere',
    ];
    public const TEMPERATURE = ['temperature', 'temp', 'airtemperature', 'temperatur', 'lufttemperatur', 'temperatura'];
    public const PRESSURE = ['pressure', 'airpressure', 'press', 'luftdruck', 'druck', 'pression', 'presion'];
    public const HUMIDITY = ['humidity', 'relativehumidity', 'rh', 'luftfeuchte', 'feuchte', 'humidite', 'humedad'];
    public const ZENITH = [
        'zenith', 'zenithangle', 'za', 'zenitwinkel', 'zenitdistanz', 'zenit', 'zd', 'verticalangle', 'vertical',
        'verticalcircle', 'va', 'v', 'vz',
        'vertikalwinkel', 'vwinkel', 'anglezenithal', 'anglevertical', 'angulocenital', 'angulovertical', 'av',
    ];
    public const SLOPE_DISTANCE = [
        'slopedistance', 'sd', 'slope', 'sdist', 'slopedist', 'sdistance', 'distance', 'schraegstrecke',
        'schraegdistanz', 'strecke', 'distanz',
        'distanceinclinee', 'distanciainclinada', 'dist', 'ds', 's', 'd',
    ];
    public const HORIZONTAL_DISTANCE = [
        'horizontaldistance', 'hd', 'hdist', 'hdistance', 'horizontalstrecke', 'horizontaldist',
        'distancehorizontale', 'distanciahorizontal', 'dhz',
    ];

    /** Words so short or so widely used that the values have to agree. */
    public const WEAK = [
        'p', 'no', 'nr', 'num', 'id', 'st', 'x', 'y', 'z', 's', 'd', 'v', 'e', 'se', 'sn', 'sh', 'sx', 'sy', 'sz',
        'fl', 'art', 'note',
    ];
}
